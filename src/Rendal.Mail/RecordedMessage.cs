using MimeKit;
using MimeKit.IO;

namespace Rendal.Mail;

/// <summary>
/// A message that goes out exactly as it was recorded, byte for byte. <c>begin</c> is called before its body; after its last byte was
/// handed to the server and before the line that ends it, <c>beforeEnd</c> is awaited; if that throws, the server never has the message
/// whole.
/// </summary>
internal static class RecordedMessage
{
    private static ReadOnlySpan<byte> EndOfHeaders => "\r\n\r\n"u8;

    /// <summary>Makes a message to be sent from recorded bytes.</summary>
    /// <exception cref="InvalidDataException">The bytes have no end of headers.</exception>
    public static MimeMessage Of(byte[] bytes, Action begin, Func<Task> beforeEnd)
    {
        var end = bytes.AsSpan().IndexOf(EndOfHeaders);
        if (end < 0)
        {
            throw new InvalidDataException("The recorded message has no end of its headers.");
        }

        var body = end + EndOfHeaders.Length;
        using var head = new MemoryStream(bytes, 0, body);
        var message = new MimeMessage();
        message.Headers.Clear();
        foreach (var header in HeaderList.Load(head))
        {
            message.Headers.Add(header);
        }

        message.Body = new RecordedBody(bytes.AsMemory(body), begin, beforeEnd);
        return message;
    }

    /// <summary>The body as recorded; it has no headers of its own, since all stand in the message's.</summary>
    private sealed class RecordedBody : MimeEntity
    {
        private readonly ReadOnlyMemory<byte> bytes;
        private readonly Action begin;
        private readonly Func<Task> beforeEnd;

        /// <summary>A body that tells when it begins and before it ends.</summary>
        public RecordedBody(ReadOnlyMemory<byte> bytes, Action begin, Func<Task> beforeEnd)
            : base(new ContentType("application", "octet-stream"))
        {
            (this.bytes, this.begin, this.beforeEnd) = (bytes, begin, beforeEnd);
            Headers.Clear();
        }

        public override void Prepare(EncodingConstraint constraint, int maxLineLength = 78)
        {
            // It was prepared before it was recorded: ASCII and short lines.
        }

        public override void WriteTo(FormatOptions options, Stream stream, bool contentOnly, CancellationToken cancellationToken = default)
        {
            if (stream is not MeasuringStream)
            {
                throw new InvalidOperationException("A recorded message is only ever sent asynchronously.");
            }

            stream.Write(bytes.Span);
        }

        public override async Task WriteToAsync(
            FormatOptions options,
            Stream stream,
            bool contentOnly,
            CancellationToken cancellationToken = default
        )
        {
            if (stream is MeasuringStream)
            {
                await stream.WriteAsync(bytes, cancellationToken);
            }
            else
            {
                begin();
                await stream.WriteAsync(bytes, cancellationToken);
                await stream.FlushAsync(cancellationToken);
                await beforeEnd();
            }
        }
    }
}
