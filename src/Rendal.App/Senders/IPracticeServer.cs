namespace Rendal.App.Senders;

/// <summary>The mail server to practise with, which lets each book in to its own account.</summary>
public interface IPracticeServer
{
    /// <summary>The port where it takes messages.</summary>
    int MailPort { get; }

    /// <summary>Whether a server is this one.</summary>
    /// <param name="host">The server's name or address.</param>
    /// <param name="port">Its port.</param>
    bool IsAt(string host, int port);

    /// <summary>The name of a book's account.</summary>
    string UserName(long book);

    /// <summary>The password of a book's account, which is never typed.</summary>
    string Password(long book);
}
