using System.Buffers;
using System.IO.Pipelines;

namespace Rendal.Postroom;

/// <summary>A connection's two pipes as one stream, which is what securing the line needs.</summary>
internal sealed class ConnectionStream(IDuplexPipe pipes) : Stream
{
    public override bool CanRead => true;

    public override bool CanSeek => false;

    public override bool CanWrite => true;

    public override long Length => throw new InvalidOperationException("A connection has no length.");

    public override long Position
    {
        get => throw new InvalidOperationException("A connection has no position.");
        set => throw new InvalidOperationException("A connection has no position.");
    }

    public override async ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default)
    {
        var result = await pipes.Input.ReadAsync(cancellationToken);
        var count = (int)Math.Min(buffer.Length, result.Buffer.Length);
        var taken = result.Buffer.Slice(0, count);
        taken.CopyTo(buffer.Span);
        pipes.Input.AdvanceTo(taken.End);
        return count;
    }

    public override Task<int> ReadAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) =>
        ReadAsync(buffer.AsMemory(offset, count), cancellationToken).AsTask();

    public override async ValueTask WriteAsync(ReadOnlyMemory<byte> buffer, CancellationToken cancellationToken = default) =>
        await pipes.Output.WriteAsync(buffer, cancellationToken);

    public override Task WriteAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) =>
        WriteAsync(buffer.AsMemory(offset, count), cancellationToken).AsTask();

    public override async Task FlushAsync(CancellationToken cancellationToken) => await pipes.Output.FlushAsync(cancellationToken);

    public override int Read(byte[] buffer, int offset, int count) =>
        throw new InvalidOperationException("A connection is only read asynchronously.");

    public override void Write(byte[] buffer, int offset, int count) =>
        throw new InvalidOperationException("A connection is only written asynchronously.");

    public override void Flush() { }

    public override long Seek(long offset, SeekOrigin origin) => throw new InvalidOperationException("A connection cannot be wound.");

    public override void SetLength(long value) => throw new InvalidOperationException("A connection has no length.");
}
