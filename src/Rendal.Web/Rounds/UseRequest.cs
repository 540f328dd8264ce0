using System.ComponentModel.DataAnnotations;
using Rendal.App;
using Rendal.Core.Uses;

namespace Rendal.Web.Rounds;

/// <summary>What a layout or a wording is used for from now on.</summary>
/// <param name="Purpose">One of <see cref="Purposes.All"/>.</param>
/// <param name="Language">The code of a language; empty for any.</param>
/// <param name="Id">The layout or the wording; null for none of one's own.</param>
internal sealed record UseRequest([property: StringLength(50)] string Purpose, [property: StringLength(10)] string Language, long? Id)
{
    /// <summary>Refused in words where the purpose or the language is not known.</summary>
    public void Check()
    {
        if (!Purposes.All.Contains(Purpose))
        {
            throw Unable.Invalid($"“{Purpose}” is nothing that layouts and wordings are used for.");
        }

        if (Language.Length > 0 && !Core.Wordings.Language.TryParse(Language, out _))
        {
            throw Unable.Invalid($"“{Language}” is not a language that is known.");
        }
    }
}
