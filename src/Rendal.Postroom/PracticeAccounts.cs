namespace Rendal.Postroom;

/// <summary>Who may sign in to the postroom.</summary>
public abstract class PracticeAccounts
{
    /// <summary>Any name with any password, each an account of its own; only an empty one is refused.</summary>
    public static PracticeAccounts Anybody { get; } = new All();

    /// <summary>Whether a name and a password are those of an account.</summary>
    public abstract bool Has(string name, string password);

    private sealed class All : PracticeAccounts
    {
        public override bool Has(string name, string password) => name.Length > 0 && password.Length > 0;
    }
}
