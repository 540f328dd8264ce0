namespace Rendal.Core.Parcels;

/// <summary>An account whose items are on the statements of a parcel.</summary>
/// <param name="Key">The customer.</param>
/// <param name="Name">Its name as it stands on the statement.</param>
public sealed record ParcelAccount(string Key, string Name);
