using Rendal.App.Books;
using Rendal.Core.Budgets;
using Rendal.Mail;

namespace Rendal.App.Returned;

/// <summary>Takes in what came back from a file: one message, or many of them as mbox.</summary>
public sealed class TakeReturned(BookStores stores, TimeProvider clock)
{
    /// <summary>How many messages of a file are taken in at most.</summary>
    public const int MostMessages = 5_000;

    /// <summary>Takes its messages in, one after the other; those before one that cannot be read stay taken in.</summary>
    /// <param name="name">The name of the file.</param>
    /// <param name="content">It.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>What became of each.</returns>
    /// <exception cref="ProblemException">It is no message, has something in it that is none, or too many, or one that is too
    /// large.</exception>
    public async Task<IReadOnlyList<TakenReturn>> RunAsync(string name, Stream content, CancellationToken cancel)
    {
        var taking = new ReturnedTaking(stores.Source, stores.Book.Id, clock);
        var taken = new List<TakenReturn>();
        try
        {
            foreach (var (message, bytes) in BounceReader.Open(content))
            {
                if (taken.Count == MostMessages)
                {
                    throw ProblemException.Invalid(
                        $"{name} has more than {MostMessages} messages; the first {MostMessages} were taken in. Divide the file."
                    );
                }

                taken.Add(await taking.TakeAsync(name, message, bytes, stores.Person, cancel));
            }
        }
        catch (OverBudget e)
        {
            throw ProblemException.Invalid($"{name}: {e.Message}");
        }
        catch (FormatException) when (taken.Count > 0)
        {
            throw ProblemException.Invalid(
                $"{name} is read up to message {taken.Count}, which was taken in; what follows is no message. Look at the rest "
                    + "of the file."
            );
        }
        catch (FormatException)
        {
            throw ProblemException.Invalid(
                $"{name} is no message. Save the mail that came back as .eml, or many of them as mbox, and take that in."
            );
        }

        return taken;
    }
}
