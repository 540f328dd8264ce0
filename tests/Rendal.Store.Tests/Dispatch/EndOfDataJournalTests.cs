using System.Diagnostics;
using Rendal.Store.Dispatch;

namespace Rendal.Store.Tests.Dispatch;

public sealed class EndOfDataJournalTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("rendal-given-").FullName;

    private EndOfDataJournal Given => new(folder, "7712553475663190250/16385");

    [Fact]
    public void What_was_noted_is_known_once_its_worker_is_dead()
    {
        Kill(Given, folder, 7, [41, 3_000_000_000, 42]);
        Assert.Equal([41, 42, 3_000_000_000], Given.Of(7)!.Ends.Order());
        Given.Forget(7);
        Assert.Null(Given.Of(7));
    }

    [Fact]
    public void Who_noted_nothing_has_given_nothing()
    {
        Kill(Given, folder, 7, []);
        Assert.Empty(Given.Of(7)!.Ends);
    }

    [Fact]
    public void What_was_being_made_is_known_and_what_was_made_is_not_among_it()
    {
        Kill(Given, folder, 7, notes =>
        {
            using (notes.Making(5))
            {
                _ = notes.Making(6);
            }

            notes.Making(8).Dispose();
            _ = notes.Making(8);
            notes.Note(41);
        });
        Assert.Equal([6, 8], Given.Of(7)!.Making.Order());
        Assert.Equal([41], Given.Of(7)!.Ends);
    }

    [Fact]
    public void Of_who_lives_nothing_is_known_and_who_goes_in_good_order_leaves_nothing()
    {
        using (var notes = Given.Begin(7))
        {
            notes.Note(41);
            Assert.Null(Given.Of(7));
        }

        Assert.Null(Given.Of(7));
        Assert.Empty(Directory.GetFiles(folder));
    }

    [Fact]
    public void Of_another_database_another_machine_or_before_the_machine_was_started_nothing_is_known()
    {
        Kill(Given, folder, 7, [41]);
        Assert.Null(new EndOfDataJournal(folder, "7712553475663190250/16386").Of(7));
        var file = Path.Combine(folder, "worker-7");
        var bytes = File.ReadAllBytes(file);
        bytes[0] ^= 1;
        File.WriteAllBytes(file, bytes);
        Assert.Null(Given.Of(7));
    }

    [Theory]
    [InlineData(0)]
    [InlineData(20)]
    [InlineData(-3)]
    public void Notes_that_are_not_whole_say_nothing(int length)
    {
        Kill(Given, folder, 7, [41]);
        using (var file = File.Open(Path.Combine(folder, "worker-7"), FileMode.Open))
        {
            file.SetLength(length < 0 ? file.Length + length : length);
        }

        Assert.Null(Given.Of(7));
    }

    [Fact]
    public void Many_note_at_once()
    {
        var numbers = Enumerable.Range(1, 2_000).Select(i => (long)i).ToArray();
        Kill(Given, folder, 7, notes => Parallel.ForEach(numbers, notes.Note));
        Assert.Equal(numbers, Given.Of(7)!.Ends.Order());
    }

    public void Dispose() => Directory.Delete(folder, recursive: true);

    internal static void Kill(EndOfDataJournal given, string folder, long worker, long[] noted) =>
        Kill(given, folder, worker, notes => Array.ForEach(noted, notes.Note));

    /// <summary>Leaves what a worker leaves that was killed: its file as it was, and held by nobody.</summary>
    internal static void Kill(EndOfDataJournal given, string folder, long worker, Action<EndOfDataNotes> note)
    {
        var file = Path.Combine(folder, $"worker-{worker}");
        using (var notes = given.Begin(worker))
        {
            note(notes);
            using var copying = Process.Start("cp", [file, $"{file}-as-it-was"]);
            copying.WaitForExit();
        }

        File.Move($"{file}-as-it-was", file);
    }
}
