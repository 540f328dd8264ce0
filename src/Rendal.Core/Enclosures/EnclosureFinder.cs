using Rendal.Core.Ledger;
using Rendal.Core.Statements;

namespace Rendal.Core.Enclosures;

/// <summary>Finds the files that go with each parcel of a round.</summary>
/// <param name="enclosing">What the round encloses.</param>
/// <param name="copies">Which file is the copy of which document.</param>
/// <param name="files">All other files, by number: those that can be picked and those that are kept with customers.</param>
public sealed class EnclosureFinder(Enclosing enclosing, CopyMatching copies, IReadOnlyList<EnclosureFile> files)
{
    private readonly ILookup<string, EnclosureFile> own = files
        .Where(f => f.Use == EnclosureUse.Customer)
        .ToLookup(f => f.Customer, StringComparer.Ordinal);
    private readonly ILookup<string, EnclosureFile> byName = files
        .Where(f => f.Use != EnclosureUse.Customer)
        .Concat(copies.Files.Select(c => c.File))
        .ToLookup(f => f.Name, StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<long, EnclosureFile> byId = files.ToDictionary(f => f.Id);

    /// <summary>The files of a parcel.</summary>
    /// <param name="customer">Who gets it.</param>
    /// <param name="statements">Its statements.</param>
    /// <param name="leftOut">The numbers of files that do not go with this parcel.</param>
    /// <param name="added">The numbers of files that go with this parcel alone.</param>
    public ParcelEnclosures Of(
        string customer,
        IReadOnlyList<Statement> statements,
        IReadOnlyCollection<long> leftOut,
        IReadOnlyCollection<long> added
    )
    {
        var takesItems = enclosing.Copies != CopyForm.None || enclosing.Column.Length > 0;
        if (!takesItems && added.Count == 0 && enclosing.ForAll.Count == 0 && (enclosing.WithoutOwn || !own.Contains(customer)))
        {
            return ParcelEnclosures.None;
        }

        var found = new List<ParcelEnclosure>();
        var missing = new List<string>();
        var problems = new List<string>();
        var items = statements.SelectMany(s => s.Items).Select(i => i.Row).ToList();
        if (enclosing.Copies != CopyForm.None)
        {
            foreach (var row in items.Where(LedgerDocument.IsDocument))
            {
                Copies(row, leftOut, found, missing, problems);
            }
        }

        if (enclosing.Column.Length > 0)
        {
            foreach (var row in items)
            {
                Named(row, found, problems);
            }
        }

        if (!enclosing.WithoutOwn)
        {
            found.AddRange(own[customer].Select(f => Enclosed(f, customer)));
        }

        foreach (var id in enclosing.ForAll.Concat(added))
        {
            if (byId.GetValueOrDefault(id) is { } file)
            {
                found.Add(Enclosed(file, file.Customer));
            }
            else
            {
                problems.Add("a file that is to be enclosed was deleted");
            }
        }

        return new ParcelEnclosures(
            [.. found.Where(f => !leftOut.Contains(f.File)).GroupBy(f => (f.Sha256, f.Customer, f.IsNamed)).Select(Once)],
            missing,
            problems.Count > 0 ? problems[0]
                : missing.Count > 0 && !enclosing.WithoutMissing ? $"{ParcelEnclosures.AboutCopies}{Listed(missing)} missing"
                : ""
        );
    }

    private void Copies(
        LedgerRow row,
        IReadOnlyCollection<long> leftOut,
        List<ParcelEnclosure> found,
        List<string> missing,
        List<string> problems
    )
    {
        if (copies.InQuestion(row.Customer, row.Number).Any(m => !leftOut.Contains(m.File.Id)))
        {
            problems.Add($"{ParcelEnclosures.AboutCopies}{row.Number} is in question");
            return;
        }

        var of = copies.Of(row.Customer, row.Number);
        found.AddRange(of.Select(f => Enclosed(f, row.Customer) with { Numbers = [row.Number] }));
        if (of.Count == 0 && row.Kind == ItemKind.Invoice)
        {
            missing.Add(row.Number);
        }
    }

    private void Named(LedgerRow row, List<ParcelEnclosure> found, List<string> problems)
    {
        var name = row.Extra.GetValueOrDefault(enclosing.Column)?.Trim() ?? "";
        if (name.Length == 0)
        {
            return;
        }

        var named = byName[name].DistinctBy(f => f.Sha256).ToList();
        if (named.Count == 1)
        {
            found.Add(Enclosed(named[0], row.Customer) with { Numbers = row.Number.Length > 0 ? [row.Number] : [], IsNamed = true });
        }
        else
        {
            problems.Add(named.Count == 0 ? $"there is no file “{name}”" : $"there are two files “{name}”");
        }
    }

    /// <summary>What stands in it several times, as a copy of two of its documents, is enclosed once.</summary>
    private static ParcelEnclosure Once(IEnumerable<ParcelEnclosure> same)
    {
        var all = same.ToList();
        return all[0] with { Numbers = [.. all.SelectMany(f => f.Numbers).Distinct(StringComparer.Ordinal)] };
    }

    private static ParcelEnclosure Enclosed(EnclosureFile file, string customer) =>
        new(file.Id, file.Name, file.Sha256, file.Size, file.ContentType, customer, []);

    private static string Listed(List<string> missing) =>
        missing.Count == 1 ? $"{missing[0]} is" : FormattableString.Invariant($"{missing[0]} and {missing.Count - 1} more are");
}
