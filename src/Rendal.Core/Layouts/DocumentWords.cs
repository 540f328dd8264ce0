using Rendal.Core.Ledger;
using Rendal.Core.Wordings;

namespace Rendal.Core.Layouts;

/// <summary>The fixed words of a statement in one language.</summary>
public sealed record DocumentWords
{
    private static readonly DocumentWords English = new()
    {
        Title = "Statement of account",
        Date = "Date",
        Customer = "Account",
        Currency = "Currency",
        AccountName = "Name",
        Number = "Number",
        Kind = "Item",
        Dated = "Dated",
        Due = "Due",
        DaysOver = "Days over",
        Original = "Amount",
        Open = "Open",
        Total = "Open in all",
        Subtotal = "Subtotal",
        GrandTotal = "All accounts together",
        Interest = (rate, number, days) => $"Interest at {rate}% a year on {number}, {days} days",
        ToPay = "To pay",
        Debit = "Debit",
        Credit = "Credit",
        Balance = "Balance",
        BroughtForward = "Brought forward",
        Period = "Period",
        NotDue = "not due",
        Days = "days",
        Credits = "credits",
        HowToPay = "How to pay",
        Pay = new("Pay online:", "for your banking app", "to pay online"),
        Reference = "Reference",
        Unit = "Unit",
        CarriedForward = "Carried forward",
        Reminder = level => level == 1 ? "Reminder" : $"Reminder {level}",
        Page = (page, pages) => $"Page {page} of {pages}",
        Kinds = ["Invoice", "Credit note", "Payment", "Adjustment", "Opening balance"],
    };

    private static readonly DocumentWords German = new()
    {
        Title = "Kontoauszug",
        Date = "Datum",
        Customer = "Konto",
        Currency = "Währung",
        AccountName = "Name",
        Number = "Nummer",
        Kind = "Posten",
        Dated = "Vom",
        Due = "Fällig",
        DaysOver = "Tage über",
        Original = "Betrag",
        Open = "Offen",
        Total = "Offen insgesamt",
        Subtotal = "Zwischensumme",
        GrandTotal = "Alle Konten zusammen",
        Interest = (rate, number, days) => $"Zinsen {rate} % p. a. auf {number}, {days} Tage",
        ToPay = "Zu zahlen",
        Debit = "Soll",
        Credit = "Haben",
        Balance = "Saldo",
        BroughtForward = "Saldovortrag",
        Period = "Zeitraum",
        NotDue = "nicht fällig",
        Days = "Tage",
        Credits = "Guthaben",
        HowToPay = "Zahlung",
        Pay = new("Online bezahlen:", "für Ihre Banking-App", "online bezahlen"),
        Reference = "Referenz",
        Unit = "Bereich",
        CarriedForward = "Übertrag",
        Reminder = level => level == 1 ? "Zahlungserinnerung" : $"{level}. Zahlungserinnerung",
        Page = (page, pages) => $"Seite {page} von {pages}",
        Kinds = ["Rechnung", "Gutschrift", "Zahlung", "Korrektur", "Anfangssaldo"],
    };

    private static readonly DocumentWords French = new()
    {
        Title = "Relevé de compte",
        Date = "Date",
        Customer = "Compte",
        Currency = "Devise",
        AccountName = "Nom",
        Number = "Numéro",
        Kind = "Pièce",
        Dated = "Du",
        Due = "Échéance",
        DaysOver = "Jours de retard",
        Original = "Montant",
        Open = "Ouvert",
        Total = "Solde ouvert",
        Subtotal = "Sous-total",
        GrandTotal = "Ensemble des comptes",
        Interest = (rate, number, days) => $"Intérêts à {rate} % l’an sur {number}, {days} jours",
        ToPay = "À payer",
        Debit = "Débit",
        Credit = "Crédit",
        Balance = "Solde",
        BroughtForward = "Report",
        Period = "Période",
        NotDue = "non échu",
        Days = "jours",
        Credits = "avoirs",
        HowToPay = "Règlement",
        Pay = new("Payer en ligne :", "pour votre application bancaire", "payer en ligne"),
        Reference = "Référence",
        Unit = "Unité",
        CarriedForward = "À reporter",
        Reminder = level => level == 1 ? "Rappel" : $"{level}e rappel",
        Page = (page, pages) => $"Page {page} sur {pages}",
        Kinds = ["Facture", "Avoir", "Règlement", "Régularisation", "Solde initial"],
    };

    private static readonly DocumentWords Spanish = new()
    {
        Title = "Extracto de cuenta",
        Date = "Fecha",
        Customer = "Cuenta",
        Currency = "Moneda",
        AccountName = "Nombre",
        Number = "Número",
        Kind = "Documento",
        Dated = "De fecha",
        Due = "Vencimiento",
        DaysOver = "Días de retraso",
        Original = "Importe",
        Open = "Pendiente",
        Total = "Total pendiente",
        Subtotal = "Subtotal",
        GrandTotal = "Todas las cuentas",
        Interest = (rate, number, days) => $"Intereses del {rate} % anual sobre {number}, {days} días",
        ToPay = "A pagar",
        Debit = "Debe",
        Credit = "Haber",
        Balance = "Saldo",
        BroughtForward = "Saldo anterior",
        Period = "Período",
        NotDue = "no vencido",
        Days = "días",
        Credits = "abonos",
        HowToPay = "Forma de pago",
        Pay = new("Pagar en línea:", "para su app bancaria", "pagar en línea"),
        Reference = "Referencia",
        Unit = "Unidad",
        CarriedForward = "Suma y sigue",
        Reminder = level => level == 1 ? "Recordatorio de pago" : $"{level}.º recordatorio de pago",
        Page = (page, pages) => $"Página {page} de {pages}",
        Kinds = ["Factura", "Abono", "Pago", "Ajuste", "Saldo inicial"],
    };

#pragma warning disable CS1591 // Each word says itself.
    /// <summary>The title of the document.</summary>
    public required string Title { get; init; }

    /// <summary>Before its date.</summary>
    public required string Date { get; init; }

    /// <summary>Before the customer’s code.</summary>
    public required string Customer { get; init; }

    /// <summary>Before the customer’s name.</summary>
    public required string AccountName { get; init; }

    /// <summary>Before the currency.</summary>
    public required string Currency { get; init; }

    /// <summary>Over the numbers of documents.</summary>
    public required string Number { get; init; }

    /// <summary>Over their kinds.</summary>
    public required string Kind { get; init; }

    /// <summary>Over their dates.</summary>
    public required string Dated { get; init; }

    /// <summary>Over their due dates.</summary>
    public required string Due { get; init; }

    /// <summary>Over the days that they are overdue.</summary>
    public required string DaysOver { get; init; }

    /// <summary>Over what they were for.</summary>
    public required string Original { get; init; }

    /// <summary>Over what is outstanding of them.</summary>
    public required string Open { get; init; }

    /// <summary>Before the total of a currency.</summary>
    public required string Total { get; init; }

    /// <summary>Before the total of one account of a group.</summary>
    public required string Subtotal { get; init; }

    /// <summary>Before the total of all accounts of a group.</summary>
    public required string GrandTotal { get; init; }

    /// <summary>Before the total with interest.</summary>
    public required string ToPay { get; init; }

    /// <summary>Over what is owed, in a statement brought forward.</summary>
    public required string Debit { get; init; }

    /// <summary>Over what is credited.</summary>
    public required string Credit { get; init; }

    /// <summary>Over the running balance.</summary>
    public required string Balance { get; init; }

    /// <summary>The line that a statement brought forward begins with.</summary>
    public required string BroughtForward { get; init; }

    /// <summary>Before the days that it covers.</summary>
    public required string Period { get; init; }

    /// <summary>The band of what is not due.</summary>
    public required string NotDue { get; init; }

    /// <summary>The unit of a band: “1–30 days”.</summary>
    public required string Days { get; init; }

    /// <summary>The band of credits, where they are kept apart.</summary>
    public required string Credits { get; init; }

    /// <summary>The heading of the ways to pay.</summary>
    public required string HowToPay { get; init; }

    /// <summary>The words about links and codes for paying.</summary>
    public required PayWords Pay { get; init; }

    /// <summary>Over the customer’s own references.</summary>
    public required string Reference { get; init; }

    /// <summary>Over business units.</summary>
    public required string Unit { get; init; }

    /// <summary>The line that ends a page where the table goes on.</summary>
    public required string CarriedForward { get; init; }
#pragma warning restore CS1591

    /// <summary>The interest on an item: the rate in per cent as written, the item's number, and the days past due.</summary>
    public required Func<string, string, int, string> Interest { get; init; }

    /// <summary>The title of a reminder of a level, from 1.</summary>
    public required Func<int, string> Reminder { get; init; }

    /// <summary>The line with the page number and the number of pages.</summary>
    public required Func<int, int, string> Page { get; init; }

    private IReadOnlyList<string> Kinds { get; init; } = [];

    /// <summary>The words of a language; English where they have not been written yet (Italian, Dutch).</summary>
    public static DocumentWords In(Language language) =>
        language.Code switch
        {
            "de" => German,
            "fr" => French,
            "es" => Spanish,
            _ => English,
        };

    /// <summary>The kind of an item.</summary>
    public string Of(ItemKind kind) => Kinds[(int)kind];
}
