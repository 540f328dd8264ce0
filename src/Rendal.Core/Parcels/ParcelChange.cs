using System.Text.Json.Serialization;
using Rendal.Core.Wordings;

namespace Rendal.Core.Parcels;

/// <summary>A part of a parcel that a person can change without touching the others of its round.</summary>
public enum ParcelChangePart
{
    /// <summary>Whom the message goes to.</summary>
    Recipients,

    /// <summary>The subject and the text of the message.</summary>
    Words,

    /// <summary>Words of its own on the document.</summary>
    Document,

    /// <summary>Files that go with it alone, or that do not go with it.</summary>
    Enclosures,
}

/// <summary>
/// What a person changed on the parcel of one customer in one round. It stays with the two when the round is prepared anew, and follows
/// them into the round of the rest.
/// </summary>
public sealed record ParcelChange
{
    /// <summary>The most characters of <see cref="DocumentNote"/>; it is a remark, and not a document.</summary>
    public const int LongestNote = 2_000;

    /// <summary>Whom the message goes to instead of those on the card; null for those.</summary>
    public ParcelRecipients? Recipients { get; init; }

    /// <summary>What the message says instead of its wording; null for the wording.</summary>
    public ParcelWords? Words { get; init; }

    /// <summary>
    /// What stands on the document above the table, as plain text in which lines are parted by <c>\n</c>; empty for nothing.
    /// </summary>
    public string DocumentNote { get; init; } = "";

    /// <summary>The numbers of files that would be enclosed and are not.</summary>
    public IReadOnlyList<long> LeftOut { get; init; } = [];

    /// <summary>The numbers of files that go with this parcel alone, in their order.</summary>
    public IReadOnlyList<long> Added { get; init; } = [];

    /// <summary>The parts that are changed, in their order; none for a change that changes nothing.</summary>
    [JsonIgnore]
    public IReadOnlyList<ParcelChangePart> Parts
    {
        get
        {
            var parts = new List<ParcelChangePart>();
            if (Recipients is not null)
            {
                parts.Add(ParcelChangePart.Recipients);
            }

            if (Words is not null)
            {
                parts.Add(ParcelChangePart.Words);
            }

            if (DocumentNote.Length > 0)
            {
                parts.Add(ParcelChangePart.Document);
            }

            if (LeftOut.Count > 0 || Added.Count > 0)
            {
                parts.Add(ParcelChangePart.Enclosures);
            }

            return parts;
        }
    }

    /// <summary>
    /// A wording as it is for this parcel: under its name and in its language, with the words of the parcel where it has some.
    /// </summary>
    public Wording Over(Wording wording) => Words is { } own ? wording with { Subject = own.Subject, Body = own.Body } : wording;
}

/// <summary>The words of one message, written as those of a <see cref="Wording"/> are: with slots, so that its figures stay those of the
/// customer.</summary>
/// <param name="Subject">As <see cref="Wording.Subject"/>.</param>
/// <param name="Body">As <see cref="Wording.Body"/>.</param>
public sealed record ParcelWords(string Subject, string Body);

/// <summary>Whom one message goes to, each address once.</summary>
/// <param name="To">Who it is to; at least one.</param>
/// <param name="Copies">Who gets a copy that all see.</param>
/// <param name="BlindCopies">Who gets a copy that nobody else sees.</param>
public sealed record ParcelRecipients(IReadOnlyList<string> To, IReadOnlyList<string> Copies, IReadOnlyList<string> BlindCopies);
