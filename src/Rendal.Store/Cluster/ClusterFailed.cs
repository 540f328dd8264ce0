namespace Rendal.Store.Cluster;

/// <summary>The database server could not be started. The message is one sentence for a person.</summary>
public sealed class ClusterFailed(string message) : Exception(message);
