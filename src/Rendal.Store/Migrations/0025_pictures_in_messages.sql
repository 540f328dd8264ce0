-- Pictures that stand in messages. A wording, and a parcel that was released, names them by number, so they stay as they are.
create table picture (
    book_id bigint not null references book,
    id bigint generated always as identity,
    sha256 bytea not null check (length(sha256) = 32),
    content_type text not null check (content_type in ('image/png', 'image/jpeg')),
    bytes bytea not null,
    primary key (book_id, id),
    unique (book_id, sha256)
);

create trigger picture_stays before delete or update on picture for each row execute function refuse_to_remove();
