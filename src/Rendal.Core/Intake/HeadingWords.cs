using System.Collections.Frozen;
using System.Text;
using System.Text.RegularExpressions;

namespace Rendal.Core.Intake;

/// <summary>The headings by which columns are recognised, in the languages of the trade.</summary>
public static partial class HeadingWords
{
    private static readonly (ColumnMeaning Meaning, string Words)[] Lists =
    [
        (
            ColumnMeaning.CustomerCode,
            "customer code|customer no|customer number|customer id|customer account|cust no|cust code|cust id|account|"
                + "account no|account number|account code|acct|acct no|a c|a c no|client code|client no|client id|debtor no|"
                + "debtor code|debtor account|code|"
                + "kundennummer|kunden nr|kundennr|kd nr|kdnr|debitor|debitorennummer|debitoren nr|konto|kontonummer|"
                + "code client|numero client|no client|compte client|compte|codigo cliente|codigo de cliente|"
                + "n cliente|numero de cliente|cuenta|"
                + "codice cliente|cod cliente|conto|klantnummer|klantnr|klant nr|debiteurnummer|debiteurnr|debiteur nr"
        ),
        (
            ColumnMeaning.CustomerName,
            "customer name|name of customer|name of the customer|cust name|account name|client name|debtor name|company name|company|name|"
                + "kundenname|firma|nom du client|nom client|nom|raison sociale|nombre|nombre del cliente|nombre cliente|razon social|"
                + "nome|nome cliente|ragione sociale|denominazione|naam|klantnaam|bedrijfsnaam"
        ),
        (
            ColumnMeaning.Kind,
            "kind|type|doc type|document type|transaction type|trans type|tp|tran type|"
                + "art|belegart|typ|nature|type de piece|type de document|tipo|tipo de documento|tipo documento|soort|boekingssoort"
        ),
        (
            ColumnMeaning.Number,
            "number|no|invoice no|invoice number|invoice|inv no|document number|document no|doc no|doc number|document|"
                + "reference no|transaction no|voucher|voucher no|"
                + "rechnungsnummer|rechnungsnr|rechnungs nr|rechnung nr|belegnummer|belegnr|beleg nr|beleg|nummer|rg nr|re nr|"
                + "numero|numero de facture|no facture|n facture|facture|piece|no piece|numero de piece|"
                + "numero de factura|n factura|factura|num factura|documento|numero documento|n documento|"
                + "numero fattura|fattura|factuurnummer|factuurnr|factuur|stuknummer|boekstuk"
        ),
        (
            ColumnMeaning.Date,
            "date|invoice date|inv date|document date|doc date|transaction date|posting date|dated|tax date|"
                + "datum|rechnungsdatum|belegdatum|buchungsdatum|date de facture|date facture|date piece|date de piece|date du document|"
                + "fecha|fecha de factura|fecha factura|fecha documento|data|data fattura|data documento|factuurdatum|boekdatum"
        ),
        (
            ColumnMeaning.DueDate,
            "due date|due|date due|payable by|pay by|payment due|due on|maturity|"
                + "fallig|falligkeit|falligkeitsdatum|fallig am|faellig|faelligkeit|faelligkeitsdatum|faellig am|zahlbar bis|"
                + "echeance|date d echeance|date echeance|vencimiento|fecha de vencimiento|fecha vencimiento|"
                + "scadenza|data scadenza|vervaldatum|vervaldag"
        ),
        (ColumnMeaning.Currency, "currency|curr|ccy|cur|currency code|wahrung|waehrung|whg|devise|monnaie|moneda|divisa|valuta"),
        (
            ColumnMeaning.Outstanding,
            "outstanding|outstanding amount|amount outstanding|open|open amount|amount open|amount due|balance|balance due|"
                + "remaining|unpaid|still open|os amount|o s|"
                + "offen|offener betrag|offener posten|restbetrag|saldo|reste a payer|solde|restant du|montant du|"
                + "pendiente|importe pendiente|residuo|importo residuo|da saldare|openstaand|openstaand bedrag|restant"
        ),
        (
            ColumnMeaning.Amount,
            "amount|original amount|invoice amount|gross|gross amount|total|total amount|document amount|value|invoice total|original|"
                + "betrag|bruttobetrag|rechnungsbetrag|brutto|montant|montant ttc|total ttc|importe|"
                + "importe total|importo|totale|totale documento|bedrag|factuurbedrag"
        ),
        (ColumnMeaning.Debit, "debit|dr|debits|soll|debit amount|debe|dare|debet"),
        (ColumnMeaning.Credit, "credit|cr|credits|haben|credit amount|haber|avere|avoir"),
        (
            ColumnMeaning.Email,
            "e mail|email|mail|e mail address|email address|mail address|emails|e mails|statement e mail|accounts e mail|"
                + "e mail adresse|mailadresse|adresse e mail|adresse mail|courriel|correo|correo electronico|"
                + "posta elettronica|indirizzo e mail|e mailadres|mailadres"
        ),
        (
            ColumnMeaning.Reference,
            "reference|ref|settles|allocated to|applied to|pays|against|our ref|"
                + "referenz|bezug|verwendungszweck|reference piece|referencia|riferimento|kenmerk|referentie"
        ),
        (ColumnMeaning.Unit, "unit|business unit|division|bu|geschaftsbereich|niederlassung|unite|unidad|unita|bedrijfsonderdeel"),
        (
            ColumnMeaning.Held,
            "held|hold|on hold|dispute|disputed|in dispute|query|queried|held back|gesperrt|strittig|zahlsperre|litige|"
                + "en litigio|disputa|contestato|geblokkeerd|betwist"
        ),
    ];

    private static readonly FrozenSet<string> CodeOrName = new[]
    {
        "customer",
        "client",
        "debtor",
        "kunde",
        "klant",
        "debiteur",
        "cliente",
        "debiteuren",
    }.ToFrozenSet();

    private static readonly FrozenDictionary<string, (ColumnMeaning Meaning, int Rank)> ByWord = Lists
        .SelectMany(list => list.Words.Split('|').Select((word, rank) => KeyValuePair.Create(word, (list.Meaning, rank))))
        .DistinctBy(pair => pair.Key)
        .ToFrozenDictionary();

    /// <summary>
    /// The meaning that a heading usually has, with its rank among the words for that meaning (0 is the plainest); null where the heading
    /// is none of the known words. Case, accents, punctuation, line breaks and what stands in brackets do not count: <c>"Doc. No."</c>,
    /// <c>"DOC NO"</c> and <c>"Doc no (ours)"</c> are the same.
    /// </summary>
    public static (ColumnMeaning Meaning, int Rank)? Of(string heading)
    {
        var plain = Plain(heading);
        if (ByWord.TryGetValue(plain, out var found))
        {
            return found;
        }

        var bracket = heading.IndexOfAny(['(', '[']);
        return bracket > 0 && ByWord.TryGetValue(Plain(heading[..bracket]), out found) ? found : null;
    }

    /// <summary>
    /// Whether the heading is a word like <c>Customer</c> that stands over codes in some files and over names in others.
    /// </summary>
    public static bool IsCodeOrName(string heading) => CodeOrName.Contains(Plain(heading));

    /// <summary>
    /// Small letters and figures without accents, everything else one space; a word parted by a hyphen at the end of a line is one word:
    /// <c>"Fällig-\nkeit am"</c> gives <c>"falligkeit am"</c>.
    /// </summary>
    internal static string Plain(string text)
    {
        var plain = new StringBuilder(text.Length);
        foreach (
            var c in (text.Contains('\n', StringComparison.Ordinal) ? PartedWord().Replace(text, "") : text).Normalize(
                NormalizationForm.FormD
            )
        )
        {
            if (char.IsLetterOrDigit(c))
            {
                plain.Append(char.ToLowerInvariant(c));
            }
            else if (
                char.GetUnicodeCategory(c) != System.Globalization.UnicodeCategory.NonSpacingMark
                && plain.Length > 0
                && plain[^1] != ' '
            )
            {
                plain.Append(' ');
            }
        }

        return plain.ToString().TrimEnd();
    }

    [GeneratedRegex(@"(?<=\p{L})-\s*\r?\n\s*(?=\p{Ll})")]
    private static partial Regex PartedWord();
}
