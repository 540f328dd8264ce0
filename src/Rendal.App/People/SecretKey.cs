using System.Security.Cryptography;
using System.Text;

namespace Rendal.App.People;

/// <summary>
/// A key that is good for what it was made for: in an address that is passed on, or in a cookie, and nowhere else; the database has its
/// hash.
/// </summary>
public static class SecretKey
{
    private const int Bytes = 16;

    /// <summary>Makes one: 32 hexadecimal digits, of 128 random bits.</summary>
    public static string New() => Convert.ToHexString(RandomNumberGenerator.GetBytes(Bytes));

    /// <summary>What is kept of it: its SHA-256.</summary>
    public static byte[] Hash(string key) => SHA256.HashData(Encoding.UTF8.GetBytes(key));
}
