namespace Rendal.Mail;

/// <summary>A server lies in the network of this machine, and nobody has allowed it.</summary>
/// <param name="host">Its name.</param>
public sealed class HostNotAllowed(string host)
    : IOException(
        $"{host} lies in the network of the machine that Rendal runs on. Whoever runs Rendal can allow it by RENDAL_MAIL_HOSTS={host}"
    );
