using Rendal.App.Books;
using Rendal.App.Progress;
using Rendal.Core.Customers;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Store.Intake;

namespace Rendal.App.Intake;

/// <summary>What a customer list comes to.</summary>
/// <param name="List">The list as it was read, with its findings.</param>
/// <param name="New">How many of its customers have no card yet.</param>
public sealed record CustomerListRead(CustomerList List, int New);

/// <summary>A customer list that is looked at.</summary>
public sealed class CustomerListLook
{
    private readonly BookStores stores;
    private readonly IntakeRecord intake;

    private CustomerListLook(BookStores stores, IntakeRecord intake, LedgerTable table) =>
        (this.stores, this.intake, Table, Reading) = (stores, intake, table, CardReading.Of(table, intake.Change));

    /// <summary>The rows of the file.</summary>
    public LedgerTable Table { get; }

    /// <summary>How they are read; null where no row of headings was found.</summary>
    public CardReading? Reading { get; }

    /// <summary>What keeps the list from being read; empty when it can be.</summary>
    public IReadOnlyList<string> Lacks =>
        Reading?.Lacks() ?? ["No row of headings with a customer code or name was found. Say which row has them."];

    /// <summary>Opens the file of an intake and works out its reading.</summary>
    /// <exception cref="Files.FileRefused">The file cannot be read.</exception>
    public static CustomerListLook Open(
        BookStores stores,
        IntakeRecord intake,
        OpenedFiles files,
        ProgressMeter meter,
        CancellationToken cancel
    ) => new(stores, intake, files.Open(stores, intake, intake.Change.Opening, meter, cancel));

    /// <summary>The list as read, with what is noticed only beside the cards that are there.</summary>
    /// <exception cref="ProblemException">Something keeps it from being read.</exception>
    public async Task<CustomerListRead> ReadAsync(ProgressMeter meter, CancellationToken cancel)
    {
        if (Lacks is [var lack, ..])
        {
            throw ProblemException.Invalid($"{intake.FileName}: {lack}");
        }

        var cards = await stores.Customers.AllAsync(cancel);
        meter.Begin("reading the rows");
        var list = CustomerListReader.Read(Table.Watched(meter.Rows(cancel)), Reading!);
        foreach (var unknown in list.Customers.Where(c => !cards.ContainsKey(c.Key) && !Reading!.Has(CardField.Name)))
        {
            list.Findings.Add(
                new Finding(
                    FindingCodes.CustomerUnknown,
                    Severity.Warning,
                    unknown.Source,
                    null,
                    unknown.Key,
                    $"There is no customer {unknown.Key}, and the list gives no name to make one.",
                    "Look whether the code is right."
                )
            );
        }

        NoteLoops(list, cards);
        return new CustomerListRead(list, list.Customers.Count(c => !cards.ContainsKey(c.Key)));
    }

    private void NoteLoops(CustomerList list, Dictionary<string, Customer> cards)
    {
        var offices = cards.Values.Where(c => c.HeadOffice.Length > 0).ToDictionary(c => c.Key, c => c.HeadOffice, StringComparer.Ordinal);
        foreach (var customer in list.Customers)
        {
            if (customer.Fields.TryGetValue(CardField.HeadOffice, out var office) && office != customer.Key)
            {
                offices[customer.Key] = office;
            }
        }

        foreach (var loop in new HeadOffices(offices).Loops())
        {
            list.Findings.Add(
                new Finding(
                    FindingCodes.HeadOfficeLoop,
                    Severity.Error,
                    new SourceRef(Table.File, Table.Sheet, 0),
                    Reading!.Columns.FirstOrDefault(c => c.Field == CardField.HeadOffice)?.Heading,
                    loop[0],
                    $"{string.Join(" is under ", loop.Append(loop[0]))}: none of them is at the top.",
                    "Take the head office off one of them."
                )
            );
        }
    }
}
