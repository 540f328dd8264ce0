-- Mailboxes that what came back is fetched from, one for a sender. Without a password of its own it is the sender's.
create table reply_mailbox (
    book_id bigint not null,
    sender_id bigint not null,
    host text not null check (host <> ''),
    port int not null check (port between 1 and 65535),
    security text not null check (security in ('none', 'starttls', 'tls')),
    user_name text not null check (user_name <> ''),
    password bytea,
    -- How far it was looked through: what the server's numbers are worth, and the last of them; null before the first time.
    validity bigint,
    last_uid bigint not null default 0,
    next_at timestamptz not null default '-infinity',
    looked_at timestamptz,
    -- How many messages about parcels the last look brought, and what kept it from being made; empty where nothing did.
    taken int not null default 0 check (taken >= 0),
    trouble text not null default '',
    primary key (book_id, sender_id),
    foreign key (book_id, sender_id) references sender
);

-- What is fetched by itself nobody has taken in.
alter table returned_mail alter taken_by drop not null;
