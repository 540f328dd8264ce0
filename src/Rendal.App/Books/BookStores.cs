using Npgsql;
using Rendal.Store.Books;
using Rendal.Store.Corrections;
using Rendal.Store.Customers;
using Rendal.Store.Dispatch;
using Rendal.Store.Enclosures;
using Rendal.Store.Files;
using Rendal.Store.Intake;
using Rendal.Store.Items;
using Rendal.Store.Layouts;
using Rendal.Store.Ledger;
using Rendal.Store.People;
using Rendal.Store.Readings;
using Rendal.Store.Reminders;
using Rendal.Store.Returned;
using Rendal.Store.Rounds;
using Rendal.Store.Senders;
using Rendal.Store.Wordings;

namespace Rendal.App.Books;

/// <summary>A book with its stores, and the person who acts in it.</summary>
/// <param name="book">The book.</param>
/// <param name="person">The person's number.</param>
/// <param name="source">The database.</param>
public class BookStores(Book book, long person, NpgsqlDataSource source)
{
    /// <summary>The book.</summary>
    public Book Book => book;

    /// <summary>The book as it is at this moment; <see cref="Book"/> stays what it was when the work began.</summary>
    /// <exception cref="InvalidOperationException">It is gone, which a book cannot be.</exception>
    public async Task<Book> BookNowAsync(CancellationToken cancel) =>
        await new BookStore(source).FindAsync(book.Id, cancel) ?? throw new InvalidOperationException("The book is gone.");

    /// <summary>The database that it is in.</summary>
    internal NpgsqlDataSource Source => source;

    /// <summary>The number of who acts.</summary>
    public long Person => person;

    /// <summary>What was taken in.</summary>
    public IntakeStore Intakes => new(source, book.Id);

    /// <summary>The files that were uploaded.</summary>
    public FileStore Files => new(source, book.Id);

    /// <summary>The files that can go with messages.</summary>
    public EnclosureStore Enclosures => new(source, book.Id);

    /// <summary>Files on their way.</summary>
    public UploadStore Uploads => new(source, book.Id);

    /// <summary>The rows of ledgers.</summary>
    public LedgerStore Ledger => new(source, book.Id);

    /// <summary>The cards of customers.</summary>
    public CustomerStore Customers => new(source, book.Id);

    /// <summary>Corrections over the source.</summary>
    public CorrectionStore Corrections => new(source, book.Id);

    /// <summary>What the accounts of rounds come to.</summary>
    public AccountSumStore AccountSums => new(source, book.Id);

    /// <summary>How files were read.</summary>
    public ReadingStore Readings => new(source, book.Id);

    /// <summary>The wordings.</summary>
    public WordingStore Wordings => new(source, book.Id);

    /// <summary>What the wordings were before.</summary>
    public WordingVersions WordingVersions => new(source, book.Id);

    /// <summary>What catches the eye in messages.</summary>
    public RemarkStore Remarks => new(source, book.Id);

    /// <summary>The pictures in messages.</summary>
    public PictureStore Pictures => new(source, book.Id);

    /// <summary>The senders.</summary>
    public SenderStore Senders => new(source, book.Id);

    /// <summary>The rounds and their parcels.</summary>
    public RoundStore Rounds => new(source, book.Id);

    /// <summary>What lists of rounds tell of them.</summary>
    public RoundListing RoundListing => new(source, book.Id);

    /// <summary>Rounds that are made of parcels of an earlier one.</summary>
    public FollowingRounds Following => new(source, book.Id);

    /// <summary>Releases rounds, makes them wait, and stops them.</summary>
    public RoundRelease Release => new(source, book.Id);

    /// <summary>Who prepared rounds, and who asked a second person to release them.</summary>
    public ReleaseRequests ReleaseRequests => new(source, book.Id);

    /// <summary>What becomes of the parcels of rounds once they are released.</summary>
    public RoundDispatch Dispatch => new(source, book.Id);

    /// <summary>What is made up again of a few customers of a round.</summary>
    public PreparingInPart InPart => new(source, book.Id);

    /// <summary>The parcels of rounds, part by part.</summary>
    public ParcelListing Listing => new(source, book.Id);

    /// <summary>Parcels of rounds that somebody marked.</summary>
    public MarkedParcels Marked => new(source, book.Id);

    /// <summary>Parcels of rounds that were sent to oneself first.</summary>
    public RehearsalStore Rehearsals => new(source, book.Id);

    /// <summary>What people changed in rounds.</summary>
    public RoundChanges Changes => new(source, book.Id);

    /// <summary>What was decided about customers and items of rounds.</summary>
    public RoundDecisions Decisions => new(source, book.Id);

    /// <summary>What was changed on single parcels of rounds.</summary>
    public ParcelChangeStore ParcelChanges => new(source, book.Id);

    /// <summary>What was sent to customers, and owed by them.</summary>
    public HistoryStore History => new(source, book.Id);

    /// <summary>The saved choices.</summary>
    public ChoiceStore Choices => new(source, book.Id);

    /// <summary>The items that are held back.</summary>
    public HoldStore Holds => new(source, book.Id);

    /// <summary>The layouts of documents.</summary>
    public LayoutStore Layouts => new(source, book.Id);

    /// <summary>How far reminders have come.</summary>
    public ReminderStore Reminders => new(source, book.Id);

    /// <summary>What came back.</summary>
    public ReturnedStore Returned => new(source, book.Id);

    /// <summary>What was set against what by hand.</summary>
    public SettlementStore Settlements => new(source, book.Id);

    /// <summary>Who has the book.</summary>
    public BookPeople People => new(source, book.Id);

    /// <summary>The record of what went out.</summary>
    public DispatchLog Log => new(source, book.Id);
}
