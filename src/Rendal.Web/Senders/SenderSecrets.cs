using System.Text;
using Microsoft.AspNetCore.DataProtection;
using Rendal.Mail;
using Rendal.Store.Senders;

namespace Rendal.Web.Senders;

/// <summary>Encrypts mail passwords; the keys lie outside the database.</summary>
internal sealed class SenderSecrets(IDataProtectionProvider provider)
{
    private readonly IDataProtector protector = provider.CreateProtector("sender password");

    public byte[] Protect(string password) => protector.Protect(Encoding.UTF8.GetBytes(password));

    public string Unprotect(byte[] password) => Encoding.UTF8.GetString(protector.Unprotect(password));

    /// <summary>What is needed to sign in at the mail server of a sender.</summary>
    public MailAccount AccountOf(Sender sender) => new(sender.Host, sender.Port, LineSecurities.Parse(sender.Security), sender.UserName, sender.ProtectedPassword is { } password ? Unprotect(password) : "");
}
