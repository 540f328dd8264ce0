namespace Rendal.Core.Customers;

/// <summary>How a contact stands on a message.</summary>
public enum ContactRole
{
    /// <summary>The message is to this contact.</summary>
    To,

    /// <summary>A copy that all recipients see (Cc of RFC 5322).</summary>
    Copy,

    /// <summary>A copy that nobody else sees (Bcc of RFC 5322).</summary>
    BlindCopy,
}

/// <summary>What a round is about.</summary>
public enum RoundKind
{
    /// <summary>Statements of account.</summary>
    Statements,

    /// <summary>Reminders of what is overdue.</summary>
    Reminders,

    /// <summary>The open invoices themselves.</summary>
    Invoices,

    /// <summary>Letters that ask to confirm a balance.</summary>
    Confirmations,

    /// <summary>Notices from a list.</summary>
    Notices,
}

/// <summary>Somebody at a customer's who is written to.</summary>
public sealed record Contact
{
    /// <summary>The full name, for example <c>Ines Caldera</c>; empty for a shared mailbox.</summary>
    public string Name { get; init; } = "";

    /// <summary>The title before the family name: <c>Ms</c>, <c>Herr</c>; empty where none is known.</summary>
    public string Title { get; init; } = "";

    /// <summary>The e-mail address as written, good or bad; empty where none is known.</summary>
    public string Address { get; init; } = "";

    /// <summary>How the contact stands on messages.</summary>
    public ContactRole Role { get; init; }

    /// <summary>Which rounds the contact gets; empty for all.</summary>
    public IReadOnlyList<RoundKind> Rounds { get; init; } = [];

    /// <summary>Whether the contact gets rounds of a kind.</summary>
    public bool Gets(RoundKind kind) => Rounds.Count == 0 || Rounds.Contains(kind);
}
