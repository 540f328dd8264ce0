using System.Text.Json.Serialization;

namespace Rendal.Core.Review;

/// <summary>Something in a filled message that catches the eye.</summary>
/// <param name="Code">What.</param>
/// <param name="Place">The line that it stands in, cut around it; empty for an empty subject.</param>
/// <param name="Quote">The words that it is about.</param>
/// <param name="InSubject">Whether it stands in the subject.</param>
public sealed record Remark(RemarkCode Code, string Place, string Quote, bool InSubject)
{
    private const int ShownBeside = 40;

    /// <summary>A remark about a part of a line.</summary>
    internal static Remark Of(RemarkCode code, string line, int start, int length, bool inSubject)
    {
        var from = Math.Max(0, start - ShownBeside);
        var to = Math.Min(line.Length, start + length + ShownBeside);
        var place = (from > 0 ? "…" : "") + line[from..to] + (to < line.Length ? "…" : "");
        return new Remark(code, place, line.Substring(start, length).Trim(), inSubject);
    }

    /// <summary>What is wrong, one sentence for a person.</summary>
    [JsonIgnore]
    public string Says =>
        Code switch
        {
            RemarkCode.OtherCustomer => $"It names “{Quote}”, which is another customer.",
            RemarkCode.BracesLeft => $"“{Quote}” was typed where a slot may have been meant.",
            RemarkCode.EmptyGreeting => $"The greeting “{Quote}” names nobody.",
            RemarkCode.DoubledGreeting => $"It greets twice: “{Quote}”.",
            RemarkCode.EmptySubject => "It has no subject.",
            RemarkCode.TypedAmount => $"The amount {Quote} was typed and is none of this customer’s.",
            RemarkCode.TypedDate => $"The date {Quote} was typed and is none of this statement’s.",
            RemarkCode.LinkElsewhere => $"The link “{Quote}” leads elsewhere than it says.",
            RemarkCode.MissingEnclosure => $"It says “{Quote}”, and nothing of the kind goes with it.",
            RemarkCode.OtherLanguage => $"The customer is written to in {Quote}, and there is no wording in it for this.",
            RemarkCode.DoubledWord => $"A word stands twice: “{Quote}”.",
            RemarkCode.SpaceBeforeStop => $"A space stands before the stop in “{Quote}”.",
            RemarkCode.DoubledStop => $"Two stops stand in a row: “{Quote}”.",
            RemarkCode.DoubledSpace => $"Two spaces stand in a row after “{Quote}”.",
            _ => throw new InvalidOperationException($"{Code} is no remark."),
        };
}
