using Rendal.App;

namespace Rendal.Web.SignIn;

/// <summary>A password that somebody chooses.</summary>
internal static class NewPassword
{
    private const int Shortest = 10;

    /// <exception cref="ProblemException">It is too short.</exception>
    public static void Check(string password)
    {
        if (password.Length < Shortest)
        {
            throw ProblemException.Invalid($"The password needs at least {Shortest} characters.");
        }
    }
}
