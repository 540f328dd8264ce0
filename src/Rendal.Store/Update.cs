namespace Rendal.Store;

/// <summary>What came of a change that names the version that it was made upon.</summary>
public enum Update
{
    /// <summary>It was made.</summary>
    Done,

    /// <summary>Somebody changed it in the meantime; nothing was done.</summary>
    Stale,

    /// <summary>There is nothing of this number.</summary>
    NotThere,
}
