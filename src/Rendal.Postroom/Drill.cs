namespace Rendal.Postroom;

/// <summary>A way in which the postroom is to misbehave.</summary>
/// <param name="Step">Where.</param>
/// <param name="Act">How.</param>
/// <param name="Answer">For <see cref="DrillAct.Answer"/> the whole answer on one line, its code first: <c>451 4.3.0 come back later</c>;
/// else empty.</param>
/// <param name="To">A part of an address; only what has such a recipient meets the drill. Empty for everything. Of no account before
/// <see cref="DrillStep.Recipient"/>.</param>
/// <param name="Left">How often it still happens; null until it is ended.</param>
public sealed record Drill(DrillStep Step, DrillAct Act, string Answer = "", string To = "", int? Left = null)
{
    /// <summary>What is wrong with it, in a sentence; null where it can be done.</summary>
    public string? Problem =>
        Act == DrillAct.KeepAndCut && Step != DrillStep.End ? "Only a message that has come whole can be kept."
        : Act == DrillAct.Answer && !IsAnswer(Answer)
            ? "An answer is a code of three digits from 400 to 599 and words on one line, for example “451 come back later”."
        : Left is <= 0 ? "A drill happens at least once."
        : null;

    private static bool IsAnswer(string answer) =>
        answer.Length is > 4 and <= 500
        && answer[0] is '4' or '5'
        && char.IsAsciiDigit(answer[1])
        && char.IsAsciiDigit(answer[2])
        && answer[3] == ' '
        && !answer.Any(char.IsControl);

    /// <summary>Whether what has these recipients meets it.</summary>
    internal bool Meets(IReadOnlyList<string> recipients) =>
        Step < DrillStep.Recipient || To.Length == 0 || recipients.Any(r => r.Contains(To, StringComparison.OrdinalIgnoreCase));
}
