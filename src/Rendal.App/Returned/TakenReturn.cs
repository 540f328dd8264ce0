namespace Rendal.App.Returned;

/// <summary>What became of one message that was taken in.</summary>
/// <param name="File">The file that it was in, or the mailbox.</param>
/// <param name="Outcome"><c>returned</c>, <c>delayed</c>, <c>automatic-reply</c>, <c>own-copy</c>, <c>unclear</c>, <c>delivered</c>,
/// <c>answer</c>, <c>fits-none</c> or <c>known</c>.</param>
/// <param name="Customer">The customer's key; empty where it fits none.</param>
/// <param name="Name">The customer's name; empty where it fits none.</param>
/// <param name="Addresses">The addresses that it speaks of; of a failure those that count as bad from now on.</param>
/// <param name="Reason">Why, on one line.</param>
public sealed record TakenReturn(
    string File,
    string Outcome,
    string Customer,
    string Name,
    IReadOnlyList<string> Addresses,
    string Reason
);
