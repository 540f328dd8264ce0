using Rendal.App.Progress;
using Rendal.App;
using Rendal.Core.Customers;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Store.Intake;
using Rendal.Web.Books;

namespace Rendal.Web.Intake;

/// <summary>A customer list that is looked at.</summary>
internal sealed class CustomerListLook(BookScope scope, IntakeRecord intake, LedgerTable table, CardReading? reading)
{
    public LedgerTable Table => table;

    /// <summary>What keeps the list from being read; empty when it can be.</summary>
    public IReadOnlyList<string> Lacks => reading?.Lacks() ?? ["No row of headings with a customer code or name was found. Say which row has them."];

    public CardReading? Reading => reading;

    public static CustomerListLook Open(BookScope scope, IntakeRecord intake, ReadingChange change, OpenedFiles files, ProgressMeter meter, CancellationToken cancel)
    {
        var table = files.Open(scope, intake, change.Opening, meter, cancel);
        return new CustomerListLook(scope, intake, table, CardReading.Of(table, change));
    }

    /// <summary>The list as read, with what is noticed only beside the cards that are there.</summary>
    public async Task<(CustomerList List, Dictionary<string, Customer> Cards)> ReadAsync(ProgressMeter meter, CancellationToken cancel)
    {
        if (Lacks is [var lack, ..])
        {
            throw Unable.Invalid($"{intake.FileName}: {lack}");
        }

        var cards = await scope.Customers.AllAsync(cancel);
        meter.Begin("reading the rows");
        var list = CustomerListReader.Read(table.Watched(meter.Rows(cancel)), reading!);
        foreach (var unknown in list.Customers.Where(c => !cards.ContainsKey(c.Key) && !reading!.Has(CardField.Name)))
        {
            list.Findings.Add(new Finding(FindingCodes.CustomerUnknown, Severity.Warning, unknown.Source, null, unknown.Key, $"There is no customer {unknown.Key}, and the list gives no name to make one.", "Look whether the code is right."));
        }

        NoteLoops(list, cards);
        return (list, cards);
    }

    public async Task<IntakeView> ViewAsync(ProgressMeter meter, CancellationToken cancel)
    {
        var view = IntakeView.Of(intake, table, reading, Lacks);
        if (Lacks.Count > 0)
        {
            return view;
        }

        var (list, cards) = await ReadAsync(meter, cancel);
        return view with
        {
            RowsRead = list.RowsRead,
            RowsKept = list.Customers.Count,
            RowsSetAside = list.RowsRead - list.Customers.Count,
            Customers = list.Customers.Count,
            NewCustomers = list.Customers.Count(c => !cards.ContainsKey(c.Key)),
            Errors = list.Findings.CountOf(Severity.Error),
            Warnings = list.Findings.CountOf(Severity.Warning),
            Findings = FindingGroupView.Of(list.Findings),
        };
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
            list.Findings.Add(new Finding(FindingCodes.HeadOfficeLoop, Severity.Error, new SourceRef(table.File, table.Sheet, 0), reading!.Columns.FirstOrDefault(c => c.Field == CardField.HeadOffice)?.Heading, loop[0],
                $"{string.Join(" is under ", loop.Append(loop[0]))}: none of them is at the top.", "Take the head office off one of them."));
        }
    }
}
