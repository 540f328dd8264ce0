using System.IO.Compression;
using Rendal.Core.Tests;

namespace Rendal.Files.Tests.Awkward;

/// <summary>
/// Good files, damaged at random (the same on every run). Whatever comes of it, it comes soon and is either an outcome or a refusal in
/// words; where the format carries checksums, damage never passes for the file that it was made from.
/// </summary>
public class DamageTests
{
    private static readonly TimeSpan Soon = TimeSpan.FromMinutes(2);

    [Theory]
    [InlineData("plain.xlsx", true)]
    [InlineData("numbers-texts-and-serials.xlsx", true)]
    [InlineData("several-sheets.ods", true)]
    [InlineData("plain.ods", true)]
    [InlineData("plain.xls", false)]
    [InlineData("several-sheets.xls", false)]
    [InlineData("title-and-total-lines.csv", false)]
    [InlineData("utf-16.csv", false)]
    [InlineData("quotes-and-line-breaks.csv", false)]
    public async Task Damage_is_refused_or_read_and_never_crashes_or_hangs(string file, bool hasChecksums)
    {
        var good = await File.ReadAllBytesAsync(PathOf(file), TestContext.Current.CancellationToken);
        var whole = Outcome.Of(file, () => new MemoryStream(good));
        var chance = new Random(20261031);
        for (var i = 0; i < 300; i++)
        {
            var bad = Damaged(good, chance);
            var outcome = await Task.Run(() => Outcome.Of(file, () => new MemoryStream(bad)), TestContext.Current.CancellationToken)
                .WaitAsync(Soon, TestContext.Current.CancellationToken);
            if (hasChecksums)
            {
                Assert.True(outcome == whole || outcome.StartsWith("refused: ", StringComparison.Ordinal), $"Damage {i} gave\n{outcome}");
            }
        }
    }

    [Theory]
    [InlineData("plain.xlsx", "xl/worksheets/sheet1.xml")]
    [InlineData("plain.xlsx", "xl/sharedStrings.xml")]
    [InlineData("plain.xlsx", "xl/workbook.xml")]
    [InlineData("plain.xlsx", "xl/styles.xml")]
    [InlineData("plain.ods", "content.xml")]
    [InlineData("plain.ods", "META-INF/manifest.xml")]
    public async Task Damage_inside_the_packing_neither_crashes_nor_hangs(string file, string part)
    {
        var chance = new Random(20261031);
        for (var i = 0; i < 150; i++)
        {
            var bad = Repacked(PathOf(file), part, bytes => Damaged(bytes, chance));
            var outcome = await Task.Run(() => Outcome.Of(file, () => new MemoryStream(bad)), TestContext.Current.CancellationToken)
                .WaitAsync(Soon, TestContext.Current.CancellationToken);
            Assert.NotEmpty(outcome);
        }
    }

    private static string PathOf(string file) => Path.Combine(Repository.Root, "tests", "awkward", file);

    private static byte[] Damaged(byte[] good, Random chance)
    {
        var bad = (byte[])good.Clone();
        switch (chance.Next(5))
        {
            case 0:
                return bad[..chance.Next(bad.Length)];
            case 1:
                var from = chance.Next(bad.Length);
                Array.Clear(bad, from, Math.Min(chance.Next(1, 600), bad.Length - from));
                return bad;
            case 2:
                var at = chance.Next(bad.Length);
                return [.. bad[..at], .. bad[chance.Next(bad.Length)..], .. bad[at..]];
            default:
                for (var n = chance.Next(1, 8); n > 0; n--)
                {
                    bad[chance.Next(bad.Length)] = (byte)chance.Next(256);
                }

                return bad;
        }
    }

    private static byte[] Repacked(string path, string part, Func<byte[], byte[]> change)
    {
        using var from = ZipFile.OpenRead(path);
        using var to = new MemoryStream();
        using (var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var entry in from.Entries)
            {
                using var content = new MemoryStream();
                using (var stream = entry.Open())
                {
                    stream.CopyTo(content);
                }

                using var copy = zip.CreateEntry(entry.FullName).Open();
                copy.Write(entry.FullName == part ? change(content.ToArray()) : content.ToArray());
            }
        }

        return to.ToArray();
    }
}
