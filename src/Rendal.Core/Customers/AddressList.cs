using System.Buffers;
using System.Net.Mail;
using System.Text;

namespace Rendal.Core.Customers;

/// <summary>The e-mail addresses of one field, the good ones and the bad ones apart.</summary>
/// <param name="Good">Addresses that can be written to, in the order written, repeated ones once (case ignored).</param>
/// <param name="Bad">The parts that are no address, as written.</param>
public sealed record AddressList(IReadOnlyList<string> Good, IReadOnlyList<string> Bad)
{
    /// <summary>The most recipients of one message.</summary>
    public const int MostRecipients = 50;

    private const int LongestPlain = 200;

    private static readonly SearchValues<char> PlainCharacters = SearchValues.Create(
        "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789-_."
    );

    /// <summary>No addresses.</summary>
    public static AddressList None { get; } = new([], []);

    /// <summary>
    /// Takes a field apart at <c>;</c>, <c>,</c> and white space outside quotes and angle brackets. Each part has to be an address by RFC
    /// 5322 with a dot in its domain; <c>Ines Caldera &lt;ines@fernlea.example&gt;</c> is one. <c>"a@b.example; a@B.example,x@y"</c> gives
    /// a@b.example as good and <c>x@y</c> as bad.
    /// </summary>
    public static AddressList Read(string? field)
    {
        if (string.IsNullOrWhiteSpace(field))
        {
            return None;
        }

        if (IsPlain(field))
        {
            return new AddressList([field], []);
        }

        var good = new List<string>();
        var bad = new List<string>();
        foreach (var part in Parts(field))
        {
            if (part.Contains('@', StringComparison.Ordinal) && TryAddress(part, out var address))
            {
                if (!good.Contains(address, StringComparer.OrdinalIgnoreCase))
                {
                    good.Add(address);
                }
            }
            else
            {
                bad.Add(part);
            }
        }

        return new AddressList(good, bad);
    }

    /// <summary>
    /// Whether a field is one address of plain letters and figures, as most are, so that it need not be taken apart to know.
    /// </summary>
    private static bool IsPlain(string field)
    {
        var at = field.IndexOf('@', StringComparison.Ordinal);
        return field.Length <= LongestPlain
            && IsDotted(field.AsSpan(0, Math.Max(at, 0)))
            && IsDotted(field.AsSpan(at + 1))
            && field.IndexOf('.', at + 1) > 0;
    }

    private static bool IsDotted(ReadOnlySpan<char> text) =>
        text.Length > 0 && text[0] != '.' && text[^1] != '.' && text.IndexOf("..") < 0 && text.IndexOfAnyExcept(PlainCharacters) < 0;

    private static bool TryAddress(string part, out string address)
    {
        address = "";
        if (part.Any(char.IsControl) || !MailAddress.TryCreate(part, out var mailbox))
        {
            return false;
        }

        address = mailbox.Address;
        var at = address.LastIndexOf('@');
        var domain = address[(at + 1)..];
        return at > 0
            && domain.Contains('.', StringComparison.Ordinal)
            && HasNoEmptyLabel(domain)
            && (address[0] == '"' || HasNoEmptyLabel(address[..at]));
    }

    private static bool HasNoEmptyLabel(string dotted) => dotted.Split('.').All(label => label.Length > 0);

    /// <summary>
    /// The parts of a field. A name in front of an address in angle brackets belongs to it; without brackets, white space separates.
    /// </summary>
    private static IEnumerable<string> Parts(string field)
    {
        foreach (var piece in SplitOutsideQuotes(field, c => c is ';' or ',' or '\r' or '\n'))
        {
            if (piece.Contains('<', StringComparison.Ordinal))
            {
                yield return piece;
                continue;
            }

            foreach (var word in SplitOutsideQuotes(piece, char.IsWhiteSpace))
            {
                yield return word;
            }
        }
    }

    private static List<string> SplitOutsideQuotes(string text, Func<char, bool> separates)
    {
        var parts = new List<string>();
        var part = new StringBuilder();
        var quoted = false;
        var bracketed = false;
        foreach (var c in text)
        {
            quoted = c == '"' ? !quoted : quoted;
            bracketed = !quoted && (c == '<' || (bracketed && c != '>'));
            if (!quoted && !bracketed && separates(c))
            {
                parts.Add(part.ToString());
                part.Clear();
            }
            else
            {
                part.Append(c);
            }
        }

        parts.Add(part.ToString());
        return [.. parts.Select(p => p.Trim()).Where(p => p.Length > 0)];
    }
}
