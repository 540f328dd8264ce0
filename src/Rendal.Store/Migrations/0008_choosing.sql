-- Whether a message can reach a customer, as the card said when it was last written; null where it has not been written since this column came.
alter table customer add reachable boolean;

-- What the wanted items of each account of a round come to, so that other customers can be chosen among without reading the
-- ledger again. One row a currency: they are only ever read and written all together.
alter table round add items_basis text;
create table round_account (
    book_id bigint not null,
    round_id bigint not null,
    currency char(3) not null,
    customers text[] not null,
    totals numeric[] not null,
    oldest int[] not null,
    rows int[] not null,
    empty boolean[] not null,
    primary key (book_id, round_id, currency),
    foreign key (book_id, round_id) references round,
    check (cardinality(totals) = cardinality(customers) and cardinality(oldest) = cardinality(customers) and cardinality(rows) = cardinality(customers) and cardinality(empty) = cardinality(customers))
);

-- What of the items is not wanted.
create table round_item_left_out (
    book_id bigint not null,
    round_id bigint not null,
    currency char(3) not null,
    reason text not null,
    customers int not null check (customers > 0),
    amount numeric not null,
    primary key (book_id, round_id, currency, reason),
    foreign key (book_id, round_id) references round
);
