using System.Buffers.Binary;
using Microsoft.Win32.SafeHandles;

namespace Rendal.Store.Dispatch;

/// <summary>What a dead worker noted.</summary>
/// <param name="Ends">The numbers of the attempts of which it has given the end, or was about to in that moment.</param>
/// <param name="Making">The parcels whose messages it was making.</param>
public sealed record WorkerNotes(IReadOnlySet<long> Ends, IReadOnlySet<long> Making);

/// <summary>
/// The notes of one worker in <see cref="EndOfDataJournal"/>. Nobody else can read them while it lives. Safe to be used by many at once.
/// </summary>
public sealed class EndOfDataNotes : IDisposable
{
    private readonly string path;
    private readonly SafeFileHandle file;
    private long length;

    /// <summary>Begins a file of notes; one that is there is written over.</summary>
    internal EndOfDataNotes(string path, byte[] header)
    {
        this.path = path;
        file = File.OpenHandle(path, FileMode.Create, FileAccess.Write, FileShare.None);
        RandomAccess.Write(file, header, 0);
        length = header.Length;
    }

    /// <summary>Notes that the server is given the end now. When it returns, the note outlives this program.</summary>
    public void Note(long attempt) => Write(attempt);

    /// <summary>
    /// Notes that the message of a parcel is being made, until what it returns is disposed of: it is made, or cannot be.
    /// </summary>
    public IDisposable Making(long parcel)
    {
        Write(-2 * parcel);
        return new Made(this, parcel);
    }

    private void Write(long value)
    {
        Span<byte> number = stackalloc byte[sizeof(long)];
        BinaryPrimitives.WriteInt64LittleEndian(number, value);
        try
        {
            RandomAccess.Write(file, number, Interlocked.Add(ref length, sizeof(long)) - sizeof(long));
        }
        catch (IOException)
        {
            // Without room for the note there are none: what was given is then not known, and nothing is taken for not given.
            File.Delete(path);
        }
    }

    /// <summary>Throws the notes away: their worker goes in good order.</summary>
    public void Dispose()
    {
        File.Delete(path);
        file.Dispose();
    }

    private sealed class Made(EndOfDataNotes notes, long parcel) : IDisposable
    {
        public void Dispose() => notes.Write((-2 * parcel) - 1);
    }

    /// <summary>What was noted. A zero is a place that was taken and not written to.</summary>
    internal static WorkerNotes Read(ReadOnlySpan<byte> noted)
    {
        var (ends, making) = (new HashSet<long>(), new HashSet<long>());
        for (var at = 0; at < noted.Length; at += sizeof(long))
        {
            var number = BinaryPrimitives.ReadInt64LittleEndian(noted[at..]);
            _ =
                number > 0 ? ends.Add(number)
                : number % 2 == 0 ? making.Add(number / -2)
                : making.Remove((number + 1) / -2);
        }

        return new WorkerNotes(ends, making);
    }
}
