namespace Rendal.Core.Dispatch;

/// <summary>Where a parcel stands. It is never both lost and unseen.</summary>
public enum ParcelState
{
    /// <summary>Made up, not let go.</summary>
    Prepared,

    /// <summary>Kept back by a person.</summary>
    Held,

    /// <summary>Let go, waiting for its turn.</summary>
    Released,

    /// <summary>Claimed by a worker; the server may have seen some of it.</summary>
    Sending,

    /// <summary>The server took it for at least one recipient.</summary>
    Sent,

    /// <summary>The server asked to come back later, or the line was cut before the end of the data.</summary>
    ToBeRetried,

    /// <summary>The server refused it for good.</summary>
    Refused,

    /// <summary>It came back after it was sent.</summary>
    Returned,

    /// <summary>The server was given all of it and did not answer: it may have gone. A person decides.</summary>
    Unsure,

    /// <summary>Written into a file for one's own mail program. Whether it was sent from there is for a person to say.</summary>
    Exported,

    /// <summary>Made up for the post, to be printed with the others of its round.</summary>
    Printed,
}

/// <summary>The names of the states in the database and between programs.</summary>
public static class ParcelStates
{
    /// <summary>The state in kebab-case: <c>to-be-retried</c>.</summary>
    public static string Code(this ParcelState state) =>
        state == ParcelState.ToBeRetried ? "to-be-retried" : state.ToString().ToLowerInvariant();

    /// <summary>The state of a name.</summary>
    /// <exception cref="ArgumentException">There is no such state.</exception>
    public static ParcelState Parse(string code) =>
        Enum.GetValues<ParcelState>().Where(s => s.Code() == code).Select(s => (ParcelState?)s).FirstOrDefault()
        ?? throw new ArgumentException($"“{code}” is not a state of a parcel.", nameof(code));
}
