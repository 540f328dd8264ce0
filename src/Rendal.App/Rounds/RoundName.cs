namespace Rendal.App.Rounds;

/// <summary>What a round is called.</summary>
internal static class RoundName
{
    /// <summary>The name without what stands around it.</summary>
    /// <exception cref="Unable">There is none.</exception>
    public static string Checked(string name) => string.IsNullOrWhiteSpace(name) ? throw Unable.Invalid("Give the round a name.") : name.Trim();
}
