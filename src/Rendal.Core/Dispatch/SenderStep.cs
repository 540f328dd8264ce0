namespace Rendal.Core.Dispatch;

/// <summary>What the outcome of one try means for the sender.</summary>
public enum SenderStep
{
    /// <summary>Nothing: it sends the next one.</summary>
    GoesOn,

    /// <summary>Its server cannot be reached: nothing is sent under it for a while, then it goes on by itself.</summary>
    Waits,

    /// <summary>Its sign-in is refused: nothing is sent under it until a person has seen to it.</summary>
    Stops,
}
