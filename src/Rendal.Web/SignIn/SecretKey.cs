using System.Security.Cryptography;
using System.Text;

namespace Rendal.Web.SignIn;

/// <summary>A key that is good for what it was made for: in an address that is passed on, or in a cookie, and nowhere else; the database has its hash.</summary>
internal static class SecretKey
{
    private const int Bytes = 16;

    public static string New() => Convert.ToHexString(RandomNumberGenerator.GetBytes(Bytes));

    public static byte[] Hash(string key) => SHA256.HashData(Encoding.UTF8.GetBytes(key));
}
