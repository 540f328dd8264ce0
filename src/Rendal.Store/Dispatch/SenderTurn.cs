namespace Rendal.Store.Dispatch;

/// <summary>The SQL by which messages take their turns at a sender: its pause, its server's being away, and its allowances.</summary>
internal static class SenderTurn
{
    /// <summary>Joins what the sender <c>s</c> has sent on the day of the book <c>b</c>, as <c>d</c>.</summary>
    public static string Day(string now) =>
        $"left join sender_day d on s.a_day is not null and d.book_id = s.book_id and d.sender_id = s.id and d.day = ({now} at "
        + "time zone b.time_zone)::date";

    /// <summary>Whether a sender <c>s</c> may send now, as far as others have not just taken the turn.</summary>
    public static string IsOpen(string now) =>
        $"s.paused = '' and s.unreachable_until <= {now} and s.next_at <= {now} and (s.a_day is null or coalesce(d.messages, 0) < s.a_day)";

    /// <summary>
    /// Takes the turns: common table expressions of which <c>in_turn</c> holds what the allowance a minute lets through, and
    /// <c>counted</c> is empty where the allowance of the day is used up.
    /// </summary>
    /// <param name="wanted">What is to be sent, with book_id, sender_id, day, a_minute and a_day; of a sender with an allowance one at
    /// most.</param>
    /// <param name="now">The parameter that holds the moment.</param>
    public static string Of(string wanted, string now) =>
        $"""
            paced as (
                update sender s set next_at = greatest(s.next_at,
                    {now} - 2 * interval '1 minute' / s.a_minute) + interval '1 minute' / s.a_minute
                from {wanted} w where w.a_minute is not null and s.book_id = w.book_id and s.id = w.sender_id and s.next_at <= {now}
                returning s.id),
            in_turn as (select * from {wanted} where a_minute is null or exists (select from paced)),
            counted as (
                insert into sender_day as d (book_id, sender_id, day, messages) select book_id, sender_id, day, 1 from in_turn
                    where a_day is not null
                on conflict (book_id, sender_id, day) do update set messages = d.messages + 1
                    where d.messages < (select a_day from in_turn where a_day is not null)
                returning d.sender_id)
            """;
}
