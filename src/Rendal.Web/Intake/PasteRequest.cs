using System.ComponentModel.DataAnnotations;
using Rendal.Store.Intake;

namespace Rendal.Web.Intake;

/// <summary>Cells that were copied from a spreadsheet.</summary>
internal sealed record PasteRequest([property: StringLength(20_000_000)] string Text, IntakeKind Kind);
