using Rendal.App.Readiness;
using Rendal.Core.Enclosures;
using Rendal.Files.Docx;
using Rendal.Store.Senders;

namespace Rendal.App.Tests.Readiness;

public class ProblemRemediesTests
{
    public static TheoryData<string, ProblemRemedy> Problems =>
        new()
        {
            { $"{ParcelEnclosures.AboutCopies}T-1 is missing", ProblemRemedy.Copies },
            { ParcelReadiness.WordingError, ProblemRemedy.WordsAndPaper },
            { ParcelReadiness.LayoutError, ProblemRemedy.WordsAndPaper },
            { WordProcessor.Missing, ProblemRemedy.Stated },
            {
                MessageSizes.Problem(
                    2_000_000,
                    new Sender(0, "Accounts", "a@b.example", "mail", 25, "none", "", null) { LargestBytes = 1_000_000 },
                    2
                ),
                ProblemRemedy.Stated
            },
            { "salutation is empty", ProblemRemedy.Card },
            { "“office@@railway.example” is no address", ProblemRemedy.Card },
        };

    [Theory]
    [MemberData(nameof(Problems))]
    public void A_problem_leads_to_where_it_is_seen_to(string problem, ProblemRemedy remedy) =>
        Assert.Equal(remedy, ProblemRemedies.Of(problem));
}
