-- A name is one name however it is written: see PersonName. Filled in by the program, which alone can fold it.
alter table person add folded text, add administers boolean not null default false;
create unique index person_folded on person (folded);
update person set administers = true where id = (select min(id) from person);
alter table person drop column failed_sign_ins, drop column sign_in_from;

-- Who signed in, from what, until when. A session that has ended is a row that has ended; the cookie alone opens nothing.
create table session (
    id bigint generated always as identity primary key,
    person_id bigint not null references person,
    key_hash bytea not null unique check (octet_length(key_hash) = 32),
    browser text not null check (length(browser) <= 300),
    began_at timestamptz not null,
    used_at timestamptz not null,
    good_until timestamptz not null,
    ended_at timestamptz
);
create index session_person on session (person_id) where ended_at is null;

-- Sign-ins that were begun, by what they are counted for: an account by its folded name, whether there is one or not; the
-- address that they came from; a browser that has signed in to the account before.
create table sign_in_count (
    subject text primary key,
    tries int not null,
    next_at timestamptz not null,
    tried_at timestamptz not null
);

-- An address by which somebody chooses a new password; good once, and made by who administers the installation.
create table password_reset (
    key_hash bytea primary key check (octet_length(key_hash) = 32),
    person_id bigint not null references person,
    made_by bigint not null references person,
    made_at timestamptz not null,
    good_until timestamptz not null
);
create index password_reset_person on password_reset (person_id);

-- Who made a book is not put out of it by those whom they gave it to. Of older books it is who was there first.
alter table book add made_by bigint references person;
update book b set made_by = (select min(p.person_id) from book_person p where p.book_id = b.id);
create index book_made_by on book (made_by);

alter table invitation add folded text;
delete from invitation;
alter table invitation alter column folded set not null;
drop index invitation_name;
create unique index invitation_name on invitation (book_id, folded);
create index invitation_made_by on invitation (made_by);

-- What is found by an index is no longer than an index takes.
alter table person add constraint person_name_length check (length(name) <= 100) not valid;
alter table customer add constraint customer_key_length check (length(key) <= 300 and length(name) <= 1000) not valid;
alter table saved_choice add constraint saved_choice_name_length check (length(name) <= 300) not valid;
alter table wording add constraint wording_name_length check (length(name) <= 300) not valid;
alter table round add constraint round_name_length check (length(name) <= 400) not valid;

-- Wordings and cards have a version, which is another one after each change: who changes one says which it was made upon.
create sequence content_version;
create function count_content_version() returns trigger language plpgsql as $$
begin
    new.version := nextval('content_version');
    return new;
end $$;
alter table wording add version bigint not null default 0, add changed_by bigint references person, add changed_at timestamptz;
create index wording_changed_by on wording (changed_by);
create trigger wording_version before insert or update on wording for each row execute function count_content_version();
alter table customer add version bigint not null default 0;
create trigger customer_version before insert or update on customer for each row execute function count_content_version();
