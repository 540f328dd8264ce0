using System.ComponentModel.DataAnnotations;

namespace Rendal.Web.Rounds;

/// <summary>An item of an account.</summary>
/// <param name="Key">By what it is known again.</param>
/// <param name="Name">Its number, or what else it is called.</param>
/// <param name="Reason">Empty for one on the statement, <c>settled</c>, or the reason why it is left out.</param>
/// <param name="Note">Why it is in dispute, held back, taken out or put in, in the words of whoever said so.</param>
/// <param name="Until">The day on which a held one comes up again.</param>
/// <param name="IsHeld">Whether somebody held it back here; a dispute that the file tells of is not meant.</param>
/// <param name="IsDecided">Whether somebody took it out of this round, or put it in.</param>
/// <param name="Corrections">What was put right in its row.</param>
/// <param name="ReminderLevel">The reminder that was sent for it last; null where none was, and in a round of statements.</param>
/// <param name="RemindedOn">The day on which it was.</param>
internal sealed record AccountItem(
    string Key,
    string Name,
    string Kind,
    DateOnly? Date,
    DateOnly Due,
    string Currency,
    string Original,
    string Open,
    bool IsCredit,
    string Reason,
    string Note,
    DateOnly? Until,
    bool IsHeld,
    bool IsDecided,
    int Row,
    IReadOnlyList<ItemCorrection> Corrections,
    int? ReminderLevel,
    DateOnly? RemindedOn
);

/// <summary>A value of a row that is not what the file says.</summary>
/// <param name="Column">The heading; empty for a customer that was joined with another.</param>
internal sealed record ItemCorrection(string Column, string Was, string Becomes, string By, DateTimeOffset At);

/// <summary>An amount of a payment or credit that was set against an item.</summary>
/// <param name="By"><c>hand</c>, <c>reference</c> or <c>age</c>.</param>
internal sealed record SettlingView(string Credit, int CreditRow, string Charge, int ChargeRow, string Amount, string Currency, string By);

/// <summary>What a person has said about a payment or credit.</summary>
/// <param name="Charge">What it is set against; null where it is to stay a credit. An item that is in the ledger no more has no
/// name.</param>
/// <param name="Amount">How much; null for as much as both have open.</param>
internal sealed record SaidView(long Id, string Credit, string? Charge, string? Amount, string By, DateTimeOffset At);

/// <summary>The account of one customer in a round.</summary>
internal sealed record AccountView(
    string Customer,
    string Name,
    bool IsFixed,
    IReadOnlyList<AccountItem> Items,
    IReadOnlyList<SettlingView> Settlings,
    IReadOnlyList<SaidView> Said
);

/// <summary>What a person decides about an item in a round: <c>out</c>, <c>in</c>, or null to take it back.</summary>
internal sealed record ItemDecisionRequest(
    [property: StringLength(200)] string Customer,
    string Item,
    string? Decision,
    [property: StringLength(1_000)] string Reason
);

/// <summary>An item by its key.</summary>
internal sealed record ItemRequest(string Item);

/// <summary>An item to be held back.</summary>
internal sealed record HoldRequest(
    [property: StringLength(200)] string Customer,
    string Item,
    [property: StringLength(1_000)] string Note,
    DateOnly? Until
);

/// <summary>What a payment or credit is to be set against.</summary>
/// <param name="Charge">The item; null where it is to stay a credit.</param>
/// <param name="Amount">How much; null for as much as both have open.</param>
internal sealed record SettleRequest([property: StringLength(200)] string Customer, string Credit, string? Charge, decimal? Amount);
