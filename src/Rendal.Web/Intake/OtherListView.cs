using Rendal.Core.Intake.Columns;

namespace Rendal.Web.Intake;

/// <summary>What a file seems to be, as it also stands among what it lacks or what makes it doubtful.</summary>
internal sealed record OtherListView(OtherListKind Kind, string Says);
