-- What people decide about single customers and items. An item is named by its key, by which a later intake knows it again.
alter table round_decision drop constraint round_decision_decision_check;
alter table round_decision add check (decision in ('held', 'removed', 'put-in'));

create table round_item_decision (
    book_id bigint not null,
    round_id bigint not null,
    item text not null check (item <> ''),
    is_in boolean not null,
    reason text not null check (reason <> ''),
    decided_by bigint not null references person,
    decided_at timestamptz not null default now(),
    primary key (book_id, round_id, item),
    foreign key (book_id, round_id) references round
);

-- All that was decided by hand as it held when the round was last prepared; once it is released, its parcels are made from this.
alter table round add by_hand jsonb not null default '{}';

create table item_hold (
    book_id bigint not null references book,
    id bigint generated always as identity,
    item text not null check (item <> ''),
    customer text not null check (customer <> ''),
    note text not null check (note <> ''),
    until date,
    made_by bigint not null references person,
    made_at timestamptz not null,
    ended_by bigint references person,
    ended_at timestamptz,
    primary key (book_id, id),
    check ((ended_by is null) = (ended_at is null))
);
create unique index item_hold_once on item_hold (book_id, item) where ended_at is null;

create table settled_by_hand (
    book_id bigint not null references book,
    id bigint generated always as identity,
    customer text not null check (customer <> ''),
    credit text not null check (credit <> ''),
    -- Null where the credit is to stay one.
    charge text,
    -- Null for as much as both have open.
    amount numeric check (amount > 0),
    made_by bigint not null references person,
    made_at timestamptz not null,
    taken_back_by bigint references person,
    taken_back_at timestamptz,
    primary key (book_id, id),
    check ((taken_back_by is null) = (taken_back_at is null))
);
create unique index settled_by_hand_once on settled_by_hand (book_id, credit, charge) nulls not distinct where taken_back_at is null;
