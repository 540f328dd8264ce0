namespace Rendal.Files;

/// <summary>A file that cannot be read at all. The message is one sentence for a person: what is wrong and what to do.</summary>
public sealed class FileRefused : Exception
{
    /// <summary>Refuses a file.</summary>
    public FileRefused(string message)
        : base(message) { }

    /// <summary>Refuses a file because of an error of the reader below.</summary>
    public FileRefused(string message, Exception? inner)
        : base(message, inner) { }
}
