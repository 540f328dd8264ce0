namespace Rendal.Postroom;

/// <summary>How much the postroom takes from an account.</summary>
/// <param name="LargestMessage">The size in bytes up to which it takes messages.</param>
/// <param name="MessagesAMinute">How many messages it takes in any sixty seconds; null for as many as come.</param>
public sealed record PracticeLimits(int LargestMessage, int? MessagesAMinute)
{
    /// <summary>Those that hold unless set otherwise: 25 MiB, and as many as come.</summary>
    public static PracticeLimits Usual { get; } = new(26_214_400, null);
}
