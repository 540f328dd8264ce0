using System.ComponentModel.DataAnnotations;
using Rendal.Core.Templates;

namespace Rendal.Web.Rounds;

/// <summary>What a layout or a wording is used for from now on.</summary>
/// <param name="Purpose">One of <see cref="Purposes.All"/>.</param>
/// <param name="Language">The code of a language; empty for any.</param>
/// <param name="Id">The layout or the wording; null for none of one's own.</param>
internal sealed record AssignmentRequest(
    [property: StringLength(50)] string Purpose,
    [property: StringLength(10)] string Language,
    long? Id
);
