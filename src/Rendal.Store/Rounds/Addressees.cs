using Npgsql;

namespace Rendal.Store.Rounds;

/// <summary>
/// The words that the log finds parcels by, once for each customer: its key and its name, a line each. Month after month they are the
/// same, and an index of parts of words is dear to write.
/// </summary>
internal static class Addressees
{
    /// <summary>Adds those that are not known yet, within a transaction.</summary>
    /// <param name="connection">The connection of the transaction.</param>
    /// <param name="book">The book.</param>
    /// <param name="of">A table of customers, given in code.</param>
    /// <param name="words">What gives the words of one of its rows, where it is called <c>f</c>.</param>
    /// <param name="cancel">Stops it.</param>
    public static Task AddAsync(NpgsqlConnection connection, long book, string of, string words, CancellationToken cancel) =>
        connection
            .Sql(
                $"""
                insert into addressee (book_id, words)
                select $1, {words} from {of} f left join lateral (select true as is_known from addressee a where a.book_id = $1
                    and md5(a.words) = md5({words}) offset 0) a on true
                where a.is_known is null order by 2 on conflict (book_id, md5(words)) do nothing
                """,
                book
            )
            .RunAsync(cancel);
}
