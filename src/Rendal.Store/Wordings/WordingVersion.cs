using Rendal.Core.Wordings;

namespace Rendal.Store.Wordings;

/// <summary>A wording as somebody left it.</summary>
/// <param name="Change">The number of the change that it came by; a later one has a larger number.</param>
/// <param name="By">Who made it; empty where no person did, as with what an older version of the program kept.</param>
/// <param name="At">When.</param>
/// <param name="Wording">It as it was from then on.</param>
/// <param name="Before">It as it was until then; null where it was added.</param>
public sealed record WordingVersion(long Change, string By, DateTimeOffset At, Wording Wording, Wording? Before);
