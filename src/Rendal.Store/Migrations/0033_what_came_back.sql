-- A report about the sender's own copy is nothing of the parcel's, and what only looks like a report is for a person to decide.
alter table returned_mail drop constraint returned_mail_kind_check;
alter table returned_mail add constraint returned_mail_kind_check check (kind in ('failed', 'delayed', 'automatic-reply', 'own-copy', 'unclear', 'other'));

create table returned_decision (
    book_id bigint not null,
    returned_id bigint not null,
    is_failure boolean not null,
    decided_by bigint not null references person,
    decided_at timestamptz not null,
    primary key (book_id, returned_id),
    foreign key (book_id, returned_id) references returned_mail
);
create index returned_decision_by on returned_decision (decided_by);
create trigger decision_stays before update or delete on returned_decision for each row execute function record_stays();
create index returned_mail_unclear on returned_mail (book_id, id) where kind = 'unclear';

-- An address counts as bad by a report, or by what a mail server answered when it was named to it.
alter table address_returned add since timestamptz, add reason text;
update address_returned a set since = m.written_at, reason = m.reason from returned_mail m where m.book_id = a.book_id and m.id = a.returned_id;
alter table address_returned alter since set not null, alter reason set not null, alter returned_id drop not null;
create index address_returned_by on address_returned (book_id, returned_id);

-- A report that carries no Message-ID is found by its recipient.
create function small_letters(texts text[]) returns text[] language sql immutable parallel safe as $$ select array(select lower(t) from unnest(texts) t) $$;
create index message_recipients on message using gin (small_letters(recipients));

-- Whether a try that was put off was the last one.
alter table dispatch_try add gave_up boolean not null default false;
