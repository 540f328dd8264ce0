using Rendal.Core.Enclosures;
using Rendal.Core.Sealing;

namespace Rendal.Core.Tests.Sealing;

/// <summary>What the part for enclosures of a seal is made of.</summary>
public sealed class EnclosuresInSealsTests
{
    private static readonly ParcelEnclosure Copy = new(1, "TL-1.pdf", new string('a', 64), 100, "application/pdf", "HARB", ["TL-1"]);

    [Fact]
    public void Without_files_it_is_what_the_migration_gave_to_the_seals_that_had_no_such_part()
    {
        var nothing = Convert.ToHexStringLower(Sealer.Enclosed([], CopyForm.None));
        var migration = File.ReadAllText(Path.Combine(Repository.Root, "src/Rendal.Store/Migrations/0054_enclosures.sql"));
        Assert.Contains($"seal = seal || '\\x{nothing}'", migration, StringComparison.Ordinal);
        Assert.Contains($"seen_seal = seen_seal || '\\x{nothing}'", migration, StringComparison.Ordinal);
    }

    [Fact]
    public void Another_content_name_or_form_is_another_seal_and_the_same_file_given_in_twice_is_not()
    {
        var sealed_ = Sealer.Enclosed([Copy], CopyForm.Single);
        Assert.Equal(sealed_, Sealer.Enclosed([Copy with { File = 2 }], CopyForm.Single));
        Assert.NotEqual(sealed_, Sealer.Enclosed([Copy with { Sha256 = new string('b', 64) }], CopyForm.Single));
        Assert.NotEqual(sealed_, Sealer.Enclosed([Copy with { Name = "TL-2.pdf" }], CopyForm.Single));
        Assert.NotEqual(sealed_, Sealer.Enclosed([Copy], CopyForm.Joined));
        Assert.Equal(Sealer.Enclosed([], CopyForm.None), Sealer.Enclosed([], CopyForm.Joined));
    }
}
