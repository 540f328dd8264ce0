namespace Rendal.Core.Enclosures;

/// <summary>How the copies of the invoices of a statement are enclosed.</summary>
public enum CopyForm
{
    /// <summary>They are not.</summary>
    None,

    /// <summary>Each as a file of its own.</summary>
    Single,

    /// <summary>All in one PDF, in the order of the items; what is no PDF stays a file of its own.</summary>
    Joined,

    /// <summary>All in one ZIP file.</summary>
    Zipped,
}
