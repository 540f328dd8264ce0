using System.Text;
using Microsoft.AspNetCore.DataProtection;

namespace Rendal.Web.Senders;

/// <summary>Encrypts mail passwords; the keys lie outside the database.</summary>
internal sealed class SenderSecrets(IDataProtectionProvider provider)
{
    private readonly IDataProtector protector = provider.CreateProtector("sender password");

    public byte[] Protect(string password) => protector.Protect(Encoding.UTF8.GetBytes(password));

    public string Unprotect(byte[] password) => Encoding.UTF8.GetString(protector.Unprotect(password));
}
