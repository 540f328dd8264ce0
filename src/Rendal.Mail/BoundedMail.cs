using MimeKit;
using Rendal.Core.Budgets;

namespace Rendal.Mail;

/// <summary>
/// Parses messages that others wrote. How long their headers are, and how many parts they have, is looked at before the parser
/// is: it unfolds and decodes each header, which takes minutes for one of some megabytes, and keeps each part.
/// </summary>
public static class BoundedMail
{
    // Parts within parts; a report that carries a message with an enclosure has four.
    private static readonly ParserOptions Options = new() { MaxMimeDepth = (int)Limits.Mail.Most(Cost.Levels) };

    // What begins a message of an mbox (RFC 4155).
    private static ReadOnlySpan<byte> MboxSeparator => "From "u8;

    /// <summary>Parses one message.</summary>
    /// <exception cref="FormatException">It is no message.</exception>
    /// <exception cref="OverBudget">It is longer than <see cref="Limits.Mail"/> says, or its headers are, or it has more
    /// parts.</exception>
    public static MimeMessage Load(byte[] bytes)
    {
        using var stream = new MemoryStream(bytes);
        new Budget("The message", Limits.Mail).Spend(Cost.Bytes, bytes.Length);
        Check(stream, MimeFormat.Entity);
        return MimeMessage.Load(Options, stream);
    }

    /// <summary>A parser of a file of messages whose headers are within the budget.</summary>
    /// <exception cref="OverBudget">The headers of one are not, or it has too many parts.</exception>
    internal static MimeParser Parser(Stream file, MimeFormat format)
    {
        Check(file, format);
        return new MimeParser(Options, file, format);
    }

    /// <summary>
    /// Goes through the lines of messages and counts, of each message: the characters of a header, from its beginning or from a boundary
    /// to the next blank line, and the lines that may be boundaries.
    /// </summary>
    private static void Check(Stream messages, MimeFormat format)
    {
        var start = messages.Position;
        var most = Limits.Mail.Most(Cost.Characters);
        var buffer = new byte[64 * 1024];
        var (isHeader, inLine, dashes, separator, header, boundaries) = (true, 0L, 0, 0, 0L, 0L);
        for (int read; (read = messages.Read(buffer)) > 0; )
        {
            foreach (var one in buffer.AsSpan(0, read))
            {
                if (one == '\n')
                {
                    // A boundary begins with two dashes; after it come the headers of a part. The line of an mbox that begins a message
                    // comes after a blank one.
                    isHeader = inLine > 0 && (isHeader || dashes == 2);
                    boundaries += dashes == 2 ? 1 : 0;
                    if (boundaries > Limits.Mail.Most(Cost.Parts))
                    {
                        new Budget("The message", Limits.Mail).AtMost(Cost.Parts, boundaries);
                    }

                    (header, inLine, dashes, separator) = (isHeader ? header : 0, 0, 0, 0);
                    continue;
                }

                if (one == '\r')
                {
                    continue;
                }

                dashes += one == '-' && dashes == inLine && dashes < 2 ? 1 : 0;
                if (
                    format == MimeFormat.Mbox
                    && separator == inLine
                    && separator < MboxSeparator.Length
                    && one == MboxSeparator[separator]
                    && ++separator == MboxSeparator.Length
                )
                {
                    (isHeader, header, boundaries) = (true, 0, 0);
                }

                inLine++;
                header += isHeader ? 1 : 0;
                if (header > most)
                {
                    new Budget("A header of the message", Limits.Mail).AtMost(Cost.Characters, header);
                }
            }
        }

        messages.Position = start;
    }
}
