namespace Rendal.Store.Cluster;

/// <summary>How one database is reached, as connection strings of Npgsql.</summary>
/// <param name="Owner">As the role that owns its tables: for the schema alone.</param>
/// <param name="Application">
/// As the role that Rendal works as. It can add to the record of what went out, but neither alter nor remove what stands there. The same
/// as <paramref name="Owner"/> where somebody runs a database with one role only.
/// </param>
public sealed record DatabaseAccess(string Owner, string Application);
