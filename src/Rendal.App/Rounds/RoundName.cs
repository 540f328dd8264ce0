namespace Rendal.App.Rounds;

/// <summary>What a round is called.</summary>
internal static class RoundName
{
    /// <summary>The name without what stands around it.</summary>
    /// <exception cref="ProblemException">There is none.</exception>
    public static string Checked(string name) =>
        string.IsNullOrWhiteSpace(name) ? throw ProblemException.Invalid("Give the round a name.") : name.Trim();
}
