namespace Rendal.Mail;

/// <summary>A mailbox cannot be reached or read; the message says why.</summary>
public sealed class MailboxUnreachable(string message, Exception inner) : IOException(message, inner);
