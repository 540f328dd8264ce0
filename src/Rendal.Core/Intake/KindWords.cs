using System.Collections.Frozen;
using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>The words by which files name the kinds of rows.</summary>
public static class KindWords
{
    private static readonly FrozenDictionary<string, ItemKind> ByWord = new[]
    {
        (
            ItemKind.Invoice,
            "invoice|inv|si|sales invoice|bill|debit note|dn|in|rechnung|re|rg|ar|ausgangsrechnung|facture|fac|fact|factura|"
                + "fra|fattura|ft|factuur|fct|verkoopfactuur|fatura|faktura|fak|lasku|fv"
        ),
        (
            ItemKind.CreditNote,
            "credit note|credit|crn|cn|cr|credit memo|sc|sales credit|gutschrift|gs|gu|avoir|av|note de credit|abono|"
                + "nota de credito|rectificativa|nota di credito|nota credito|nc|creditnota|creditfactuur|avo|abo|"
                + "kreditnota|kreditfaktura|kre|hyvityslasku|dobropis"
        ),
        (
            ItemKind.Payment,
            "payment|pay|pmt|receipt|rec|rcpt|cash|sr|sa|payment on account|poa|zahlung|za|ze|zahlungseingang|paiement|"
                + "reglement|rgl|reg|encaissement|pago|cobro|pagamento|pag|incasso|inc|betaling|bet|ontvangst|recibo|"
                + "recebimento|betalning|indbetaling|innbetaling|suoritus|wpłata|wplata|wpl|platba"
        ),
        (
            ItemKind.Adjustment,
            "adjustment|adj|journal|jnl|correction|write off|wo|korrektur|umbuchung|ausbuchung|regularisation|od|ajuste|"
                + "rettifica|storno|correctie|memoriaal"
        ),
        (
            ItemKind.OpeningBalance,
            "opening balance|opening|brought forward|b f|bf|balance forward|balance b f|eroffnungssaldo|vortrag|saldovortrag|"
                + "report a nouveau|a nouveau|solde initial|saldo inicial|saldo iniziale|beginsaldo|beginbalans"
        ),
    }
        .SelectMany(list => list.Item2.Split('|').Select(word => KeyValuePair.Create(word, list.Item1)))
        .ToFrozenDictionary();

    /// <summary>The kind that a word names; null for a word that is not known. Case, accents and punctuation do not count.</summary>
    /// <param name="word">The word as it stands.</param>
    /// <param name="own">Words of one reading, which count before the known ones; written in any case.</param>
    public static ItemKind? Of(string word, IReadOnlyDictionary<string, ItemKind>? own = null)
    {
        var plain = HeadingWords.Plain(word);
        foreach (var (written, of) in own ?? NoWords)
        {
            if (HeadingWords.Plain(written) == plain)
            {
                return of;
            }
        }

        return ByWord.TryGetValue(plain, out var kind) ? kind : null;
    }

    private static IReadOnlyDictionary<string, ItemKind> NoWords { get; } = new Dictionary<string, ItemKind>();
}
