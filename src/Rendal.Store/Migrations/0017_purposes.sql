-- Layouts are for lists of invoices and confirmations of balance too.
alter table layout_use
    drop constraint layout_use_purpose_check,
    add check (purpose ~ '^(statement|reminder|reminder-[1-9]|invoice-list|confirmation)$');

-- What a wording is used for: a purpose in one language, or (empty) in any.
create table wording_use (
    book_id bigint not null,
    purpose text not null check (purpose ~ '^(statement|reminder|reminder-[1-9]|invoice-list|confirmation)$'),
    language text not null,
    wording_id bigint not null,
    primary key (book_id, purpose, language),
    foreign key (book_id, wording_id) references wording
);
