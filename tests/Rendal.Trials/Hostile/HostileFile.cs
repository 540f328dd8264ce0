namespace Rendal.Trials.Hostile;

/// <summary>Where a file is given in.</summary>
internal enum HostilePlace
{
    /// <summary>As a ledger, which is looked at and kept.</summary>
    Ledger,

    /// <summary>As a customer list, which is looked at and kept.</summary>
    Customers,

    /// <summary>As a letter that is brought along.</summary>
    Letter,

    /// <summary>As mail that came back.</summary>
    Returned,

    /// <summary>As the body of a wording.</summary>
    Wording,

    /// <summary>As the logo of a layout that is looked at.</summary>
    Logo,
}

/// <summary>A file, or a text, that is made to use up time or memory, or to end the program.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Place">Where it is given in.</param>
/// <param name="FileName">Its name as a file.</param>
/// <param name="Says">What the refusal says; null where it is read.</param>
/// <param name="Make">Makes it.</param>
internal sealed record HostileFile(string Name, HostilePlace Place, string FileName, string? Says, Func<byte[]> Make)
{
    public override string ToString() => Name;
}
