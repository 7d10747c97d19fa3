import mysql from 'mysql2/promise'

/** Has everybody accept the terms of registration, so that a test is about something else. */
export async function everybodyAgrees(url: string): Promise<void> {
  const connection = await mysql.createConnection({ uri: url })
  await connection.query(
    `insert into agreement (student_id, term_id, text, accepted_at, by_id)
     select s.id, t.id, t.agreement, '2027-03-22 16:00:00', s.account_id from student s join term t
     where t.agreement is not null and not exists
       (select 1 from agreement a where a.student_id = s.id and a.term_id = t.id)`
  )
  await connection.end()
}
