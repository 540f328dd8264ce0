using System.Text.RegularExpressions;
using Rendal.Core.Wordings;

namespace Rendal.Core.Review;

/// <summary>
/// Reads a filled message as somebody would who has seen many go wrong, and says what catches the eye. Nothing of it keeps a parcel from
/// going: each remark may be meant so.
/// </summary>
public static partial class MessageReview
{
    // Greetings stand at the head, short and without a full stop; else “Dear” is a word.
    private const int GreetingLines = 3;
    private const int LongestGreeting = 80;
    private const int LongestAddress = 300;

    /// <summary>What catches the eye, the most serious first; what is remarked twice of the same words stands once.</summary>
    /// <param name="message">The message.</param>
    /// <param name="parcel">What it is about.</param>
    /// <param name="names">The names of the customers of the book.</param>
    public static IReadOnlyList<Remark> Of(MessageText message, ReviewedParcel parcel, NameIndex names)
    {
        var language = Language.TryParse(parcel.Language, out var known) ? known : Language.English;
        var words = ReviewWords.Of(language.Code);
        var found = new List<Remark>();
        if (message.Subject.Text.Length == 0)
        {
            found.Add(new Remark(RemarkCode.EmptySubject, "", "", InSubject: true));
        }

        if (Language.TryParse(parcel.Wanted, out var wanted) && wanted.Code != language.Code)
        {
            found.Add(new Remark(RemarkCode.OtherLanguage, "", wanted.Name, InSubject: false));
        }

        var greetings = Greetings(message.Lines).ToList();
        found.AddRange(greetings);
        foreach (var (i, line) in message.Lines.Prepend(message.Subject).Index())
        {
            // What is wrong with a greeting is said once.
            found.AddRange(
                InLine(line, i == 0)
                    .Where(r =>
                        r.Code is not (RemarkCode.SpaceBeforeStop or RemarkCode.DoubledWord)
                        || !greetings.Exists(g => g.Quote == line.Text)
                    )
            );
        }

        found.AddRange(
            message
                .Links.Where(l => LeadsElsewhere(l.Text, l.Target))
                .Select(l => new Remark(RemarkCode.LinkElsewhere, $"{l.Text} → {l.Target}", l.Text, InSubject: false))
        );
        return [.. found.DistinctBy(r => (r.Code, r.Quote)).OrderBy(r => r.Code)];

        IEnumerable<Remark> InLine(MessageLine line, bool inSubject)
        {
            var text = line.Text;
            return Names(line)
                .Concat(Typed(Braces().Matches(text).Select(Place), RemarkCode.BracesLeft))
                .Concat(Typed(Amounts(text), RemarkCode.TypedAmount))
                .Concat(Typed(Days(text), RemarkCode.TypedDate))
                .Concat(Typed(Promise(text), RemarkCode.MissingEnclosure))
                .Concat(Places(DoubledWords(line), RemarkCode.DoubledWord))
                .Concat(Places(LacksAValue(line) ? [] : NotOfOneValue(SpaceBefore(text)), RemarkCode.SpaceBeforeStop))
                .Concat(Places(NotOfOneValue(DoubledStops().Matches(text).Select(Place)), RemarkCode.DoubledStop))
                .Concat(DoubledSpaces(line));

            IEnumerable<Remark> Places(IEnumerable<(int Start, int Length)> places, RemarkCode code) =>
                places.Select(p => Remark.Of(code, text, p.Start, p.Length, inSubject));

            IEnumerable<Remark> Typed(IEnumerable<(int Start, int Length)> places, RemarkCode code) =>
                Places(places.Where(p => line.IsTyped(p.Start, p.Length)), code);

            IEnumerable<(int Start, int Length)> NotOfOneValue(IEnumerable<(int Start, int Length)> places) =>
                places.Where(p => line.FilledFrom(p.Start, p.Length) is null);

            // Names in what was typed and in columns of the files; what says who it is for or from may have another’s name in it.
            IEnumerable<Remark> Names(MessageLine of) =>
                Places(
                    names
                        .In(text)
                        .Where(p =>
                            (of.IsTyped(p.Start, p.Length) || of.FilledFrom(p.Start, p.Length) is { Group: SlotGroup.Columns })
                            && !parcel.OwnNames.Any(n => NameIndex.Contains(n, text.Substring(p.Start, p.Length)))
                        ),
                    RemarkCode.OtherCustomer
                );

            IEnumerable<Remark> DoubledSpaces(MessageLine of) =>
                of
                    .Spans.Where(s => s.From is null)
                    .SelectMany(s => TwoSpaces().Matches(s.Text))
                    .Select(m => new Remark(RemarkCode.DoubledSpace, m.Value.Trim(), m.Groups[1].Value, inSubject));
        }

        IEnumerable<(int Start, int Length)> Amounts(string text) =>
            TypedValues.Amounts(text).Where(a => !parcel.Has(a.Amount)).Select(a => Place(a.At));

        IEnumerable<(int Start, int Length)> Days(string text) =>
            TypedValues
                .Days(text, language)
                .Where(d => !parcel.Has(d.Day))
                .Select(d => Place(d.At))
                .Concat(TypedValues.Months(text, language).Where(m => !parcel.IsMonth(m.Year, m.Month)).Select(m => Place(m.At)));

        IEnumerable<(int Start, int Length)> Promise(string text)
        {
            foreach (Match sentence in Sentences().Matches(text))
            {
                var all = Words().Matches(sentence.Value);
                var enclosed = all.FirstOrDefault(w => words.Enclosed.Any(e => w.Value.StartsWith(e, StringComparison.OrdinalIgnoreCase)));
                var isOfCopies = all.Any(w => words.Copies.Contains(w.Value));
                if (enclosed is not null && (!parcel.HasFiles || (isOfCopies && !parcel.HasCopies)))
                {
                    yield return (sentence.Index + enclosed.Index, enclosed.Length);
                }
            }
        }

        IEnumerable<(int Start, int Length)> DoubledWords(MessageLine line) =>
            TwoWords()
                .Matches(line.Text)
                .Where(m => !words.MayStandTwice.Contains(m.Groups[1].Value) && line.FilledFrom(m.Index, m.Length) is null)
                .Select(Place);

        // French sets a space before the tall stops.
        IEnumerable<(int Start, int Length)> SpaceBefore(string text) =>
            SpaceBeforeStop().Matches(text).Where(m => language.Code != "fr" || m.Groups[1].Value is "," or ".").Select(Place);
    }

    private static IEnumerable<Remark> Greetings(IReadOnlyList<MessageLine> lines)
    {
        var head = lines
            .Take(GreetingLines)
            .Where(l => l.Text.Length <= LongestGreeting && !l.Text.EndsWith('.') && !LacksAValue(l))
            .Select(l => (l.Text, Opening: OpeningOf(l.Text)))
            .ToList();
        foreach (var (text, opening) in head)
        {
            var rest = text[opening.Length..].Trim(Stops);
            if (text.Trim(Stops).Length == 0)
            {
                yield return new Remark(RemarkCode.EmptyGreeting, text, text, InSubject: false);
            }
            else if (ReviewWords.AllThatWantName.Contains(opening) && (rest.Length == 0 || Salutation.IsTitle(rest)))
            {
                yield return new Remark(RemarkCode.EmptyGreeting, text, text, InSubject: false);
            }
            else if (opening.Length > 0 && OpeningOf(rest).Length > 0)
            {
                yield return new Remark(RemarkCode.DoubledGreeting, text, text, InSubject: false);
            }
        }

        if (head.Where(h => h.Opening.Length > 0).Select(h => h.Text).ToList() is [_, var second, ..])
        {
            yield return new Remark(RemarkCode.DoubledGreeting, second, second, InSubject: false);
        }
    }

    /// <summary>Whether a slot in it is empty, which is told without this: its parcel waits.</summary>
    private static bool LacksAValue(MessageLine line) => line.Spans.Any(s => s.From is not null && string.IsNullOrWhiteSpace(s.Text));

    private static readonly char[] Stops = [' ', ',', '.', ';', ':', '!', '\u00A0', '\u202F'];

    /// <summary>The opening that a line begins with; empty for none.</summary>
    private static string OpeningOf(string line) =>
        ReviewWords.AllOpenings.FirstOrDefault(o =>
            line.StartsWith(o, StringComparison.OrdinalIgnoreCase) && (line.Length == o.Length || !char.IsLetter(line[o.Length]))
        ) ?? "";

    private static bool LeadsElsewhere(string text, string target)
    {
        // A longer text is no address that somebody reads.
        if (text.Length > LongestAddress)
        {
            return false;
        }

        if (Address().Match(text) is { Success: true } mail)
        {
            return !target.StartsWith("mailto:" + mail.Value, StringComparison.OrdinalIgnoreCase);
        }

        return Site().Match(text) is { Success: true } site
            && !(
                Uri.TryCreate(target, UriKind.Absolute, out var to)
                && string.Equals(Host(to.Host), Host(site.Groups["host"].Value), StringComparison.OrdinalIgnoreCase)
            );
    }

    private static string Host(string host) => host.StartsWith("www.", StringComparison.OrdinalIgnoreCase) ? host[4..] : host;

    private static (int Start, int Length) Place(Match match) => (match.Index, match.Length);

    [GeneratedRegex(@"\{+[^{}]{0,60}\}+|[{}]+|<<[^<>]{0,60}>>|\[\[?\p{L}[\p{L}\d _.-]{1,40}\]?\]|%\p{L}[\p{L}_]*%")]
    private static partial Regex Braces();

    [GeneratedRegex(@"(?i)(?<![\p{L}\p{N}'’-])(\p{L}{2,})\s\1(?![\p{L}\p{N}'’-])", RegexOptions.CultureInvariant)]
    private static partial Regex TwoWords();

    [GeneratedRegex(@"\S+[ \u00A0\u202F]([,.;:!?])(?=\s|$)")]
    private static partial Regex SpaceBeforeStop();

    [GeneratedRegex(@"(?<!\.)\.\.(?!\.)|,,|;;|::|[,;:!?]\.(?!\.)|[;:],")]
    private static partial Regex DoubledStops();

    [GeneratedRegex(@"(\S+)[ \u00A0]{2,}(?=\S)")]
    private static partial Regex TwoSpaces();

    [GeneratedRegex(@"[^.!?]+[.!?]*")]
    private static partial Regex Sentences();

    [GeneratedRegex(@"\p{L}+")]
    private static partial Regex Words();

    [GeneratedRegex(@"^\S+@\S+\.\S+$")]
    private static partial Regex Address();

    [GeneratedRegex(@"^(?:https?://)?(?<host>(?:[\p{L}\d-]+\.)+\p{L}{2,})(?:[/?#:]\S*)?$", RegexOptions.IgnoreCase)]
    private static partial Regex Site();
}
