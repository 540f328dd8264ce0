namespace Rendal.Core.Ledger;

/// <summary>What a ledger row is.</summary>
public enum ItemKind
{
    /// <summary>The customer was charged.</summary>
    Invoice,

    /// <summary>The customer was given something back, for example for a short delivery.</summary>
    CreditNote,

    /// <summary>Money came in (or, with the sign turned, went back).</summary>
    Payment,

    /// <summary>A correction of the account in either direction.</summary>
    Adjustment,

    /// <summary>What was owed when the file begins.</summary>
    OpeningBalance,
}

/// <summary>The names of the kinds in files and messages between programs.</summary>
public static class ItemKinds
{
    /// <summary>The kind in kebab-case: <c>credit-note</c>.</summary>
    public static string Code(this ItemKind kind) =>
        kind switch
        {
            ItemKind.Invoice => "invoice",
            ItemKind.CreditNote => "credit-note",
            ItemKind.Payment => "payment",
            ItemKind.Adjustment => "adjustment",
            ItemKind.OpeningBalance => "opening-balance",
            _ => throw new ArgumentOutOfRangeException(nameof(kind), kind, null),
        };

    /// <summary>Whether rows of this kind lower what is owed, so that an unsigned amount of theirs is negative.</summary>
    public static bool IsCredit(this ItemKind kind) => kind is ItemKind.CreditNote or ItemKind.Payment;
}
