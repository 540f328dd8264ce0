namespace Rendal.App.Progress;

/// <summary>How far a long work has come.</summary>
/// <param name="Stage">What is being done, in a word or two for a person.</param>
/// <param name="Done">How many are done in this stage.</param>
/// <param name="Of">How many there are; 0 while that is not known.</param>
/// <param name="Unit">What they are, in the plural: <c>rows</c>, <c>parcels</c>.</param>
/// <param name="PerSecond">The speed.</param>
/// <param name="SecondsLeft">What is left of this stage at that speed; null while that is not known.</param>
public sealed record WorkProgress(string Stage, int Done, int Of, string Unit, int PerSecond, int? SecondsLeft);
