namespace Rendal.Mail;

/// <summary>The server's certificate is not good; the message says why.</summary>
internal sealed class BadCertificate(string message, Exception inner) : IOException(message, inner);
