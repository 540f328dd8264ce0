-- A sender's ways and limits, and where it stands with its server.
alter table sender
    add reply_to text not null default '',
    add copy_to_self boolean not null default false,
    add a_minute int check (a_minute between 1 and 100000),
    add a_day int check (a_day between 1 and 10000000),
    add largest_bytes int check (largest_bytes between 10000 and 1000000000),
    -- From when on the next message may begin, where there is an allowance a minute.
    add next_at timestamptz not null default '-infinity',
    -- Its server could not be reached: so often in a row, since when, in which words, and until when nothing is tried.
    add away_times int not null default 0 check (away_times >= 0),
    add away_since timestamptz,
    add away_words text not null default '',
    add away_until timestamptz not null default '-infinity',
    add check ((away_times = 0) = (away_since is null));

-- How many messages were begun on a day of the book, where there is an allowance a day.
create table sender_day (
    book_id bigint not null,
    sender_id bigint not null,
    day date not null,
    messages int not null check (messages >= 0),
    primary key (book_id, sender_id, day),
    foreign key (book_id, sender_id) references sender
);

alter table dispatch_try drop constraint dispatch_try_ending_check;
alter table dispatch_try add constraint dispatch_try_ending_check
    check (ending in ('accepted', 'try-later', 'refused', 'unanswered', 'sign-in-refused', 'unreachable', 'stopped'));
