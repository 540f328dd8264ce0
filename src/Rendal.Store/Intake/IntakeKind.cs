namespace Rendal.Store.Intake;

/// <summary>What a file is taken in for.</summary>
public enum IntakeKind
{
    /// <summary>It becomes the ledger.</summary>
    Ledger,

    /// <summary>It is laid over the customers' cards.</summary>
    Customers,
}

/// <summary>The names of the kinds in the database.</summary>
internal static class IntakeKinds
{
    /// <summary>How it stands in the database.</summary>
    public static string Name(this IntakeKind kind) => kind == IntakeKind.Ledger ? "ledger" : "customers";
}
