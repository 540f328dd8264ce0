using System.Buffers.Binary;
using Microsoft.Win32.SafeHandles;

namespace Rendal.Store.Dispatch;

/// <summary>The notes of one worker in <see cref="GivenEnds"/>. Nobody else can read them while it lives. Safe to be used by many at once.</summary>
public sealed class GivenNotes : IDisposable
{
    private readonly string path;
    private readonly SafeFileHandle file;
    private long length;

    internal GivenNotes(string path, byte[] header)
    {
        this.path = path;
        file = File.OpenHandle(path, FileMode.Create, FileAccess.Write, FileShare.None);
        RandomAccess.Write(file, header, 0);
        length = header.Length;
    }

    /// <summary>Notes that the server is given the end now. When it returns, the note outlives this program.</summary>
    public void Note(long dispatchTry)
    {
        Span<byte> number = stackalloc byte[sizeof(long)];
        BinaryPrimitives.WriteInt64LittleEndian(number, dispatchTry);
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

    /// <summary>Numbers as they are noted. A zero is a place that was taken and not written to.</summary>
    internal static HashSet<long> Read(ReadOnlySpan<byte> noted)
    {
        var numbers = new HashSet<long>();
        for (var at = 0; at < noted.Length; at += sizeof(long))
        {
            numbers.Add(BinaryPrimitives.ReadInt64LittleEndian(noted[at..]));
        }

        return numbers;
    }
}
