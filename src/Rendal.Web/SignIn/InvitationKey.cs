using System.Security.Cryptography;
using System.Text;

namespace Rendal.Web.SignIn;

/// <summary>What an invitation is followed by: in the address that is passed on, and nowhere else; the database has its hash.</summary>
internal static class InvitationKey
{
    private const int Bytes = 16;

    public static string New() => Convert.ToHexString(RandomNumberGenerator.GetBytes(Bytes));

    public static byte[] Hash(string key) => SHA256.HashData(Encoding.UTF8.GetBytes(key));
}
