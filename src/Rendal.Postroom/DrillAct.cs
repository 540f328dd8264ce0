namespace Rendal.Postroom;

/// <summary>What the postroom does in a drill.</summary>
public enum DrillAct
{
    /// <summary>It gives another answer than usual, and does not do what it was asked.</summary>
    Answer,

    /// <summary>It cuts the line instead of answering. At <see cref="DrillStep.End"/> the message is lost.</summary>
    Cut,

    /// <summary>At <see cref="DrillStep.End"/>: it keeps the message, and cuts the line before it says so.</summary>
    KeepAndCut,

    /// <summary>It does what it was asked and answers one byte at a time, with a second between them.</summary>
    Drip,
}
